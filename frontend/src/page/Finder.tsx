/** One place to go from: any stage, plan, link, instrument or field by a few letters of its name. */
import { useEffect, useMemo, useRef, type RefObject } from 'react';
import { Autocomplete, Input, Label, ListBox, ListBoxItem, SearchField, useFilter } from 'react-aria-components';
import styled from 'styled-components';

export interface Target {
  id: string;
  label: string;
  note: string;
  go: () => void;
}

export const Overlay = styled.section`
  position: fixed;
  z-index: 20;
  top: 58px;
  right: max(var(--s16), calc(50vw - 624px));
  width: min(440px, calc(100vw - 32px));
  max-height: calc(100vh - 90px);
  overflow: auto;
  background: var(--paper);
  border: var(--r-heavy) solid var(--ink);
  padding: var(--s12);
  display: grid;
  gap: var(--s8);
  align-content: start;
  h2 {
    font: var(--w-strong) var(--t-title) / var(--snug) var(--letter);
  }
  .react-aria-Label {
    display: block;
    color: var(--ink-2);
    padding-bottom: var(--s6);
  }
  .react-aria-Input::-webkit-search-cancel-button {
    display: none; /* Escape closes */
  }
  .react-aria-Input {
    width: 100%;
    min-height: 36px;
    border: 0;
    border-bottom: var(--r-heavy) solid var(--plan);
    background: var(--sunk);
    padding: 0 var(--s8);
    font: var(--w-strong) var(--t-figure) / 1 var(--letter);
  }
  .react-aria-ListBox {
    max-height: 340px;
    overflow: auto;
    outline: none;
  }
  .react-aria-ListBoxItem {
    display: flex;
    justify-content: space-between;
    gap: var(--s10);
    padding: var(--s4) var(--s6);
    cursor: pointer;
    font: var(--w-firm) var(--t-name) / var(--snug) var(--letter);
    outline: none;
  }
  .react-aria-ListBoxItem span {
    color: var(--ink-2);
    font-family: var(--text);
  }
  .react-aria-ListBoxItem[data-focused],
  .react-aria-ListBoxItem[data-hovered] {
    background: var(--ink);
    color: var(--paper);
  }
  .react-aria-ListBoxItem[data-focused] span,
  .react-aria-ListBoxItem[data-hovered] span {
    color: var(--paper);
  }
  @media (pointer: coarse) {
    .react-aria-ListBoxItem {
      min-height: var(--target);
      align-items: center;
    }
  }
`;

/** What lies over the page takes the focus, and Escape closes it. */
export function useOver(onClose: () => void): RefObject<HTMLElement | null> {
  const ref = useRef<HTMLElement>(null);
  useEffect(() => {
    const before = document.activeElement;
    ref.current?.querySelector<HTMLElement>('input, button')?.focus();
    return () => {
      if (before instanceof HTMLElement && document.activeElement === document.body) before.focus();
    };
  }, []);
  useEffect(() => {
    const keys = (event: KeyboardEvent) => {
      if (event.key === 'Escape') onClose();
    };
    window.addEventListener('keydown', keys, { capture: true });
    return () => window.removeEventListener('keydown', keys, { capture: true });
  }, [onClose]);
  return ref;
}

export function Finder({ targets, onClose }: { targets: readonly Target[]; onClose: () => void }) {
  const { contains } = useFilter({ sensitivity: 'base' });
  const items = useMemo(() => [...targets], [targets]);
  const ref = useOver(onClose);
  const words = (text: string, typed: string) => typed.split(/\s+/).every((w) => contains(text, w));
  return (
    <Overlay ref={ref} role="search" aria-label="Find">
      <Autocomplete filter={words}>
        <SearchField aria-label="Find a stage, a plan, a link, an instrument or a field">
          <Label>find a stage, a plan, a link, an instrument or a field</Label>
          <Input placeholder="bore" />
        </SearchField>
        <ListBox
          aria-label="Found"
          items={items}
          selectionMode="none"
          onAction={(key) => {
            onClose();
            items.find((t) => t.id === key)?.go();
          }}
          renderEmptyState={() => <p>Nothing here is called that.</p>}
        >
          {(item) => (
            <ListBoxItem id={item.id} textValue={`${item.label} ${item.note}`}>
              {item.label} <span>{item.note}</span>
            </ListBoxItem>
          )}
        </ListBox>
      </Autocomplete>
    </Overlay>
  );
}
