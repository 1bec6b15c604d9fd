/** What lies over a page: its frame, and how it takes the focus and gives it back. */
import { useEffect, useLayoutEffect, useRef, type RefObject } from 'react';
import styled from 'styled-components';

/** What the finder is for, on its label whether it is there yet or not. */
export const FIND = 'find a stage, a plan, a link, an instrument or a field';

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
  useLayoutEffect(() => {
    const before = document.activeElement;
    const first = ref.current?.querySelector<HTMLElement>('input, button');
    first?.focus();
    if (first instanceof HTMLInputElement && first.selectionStart !== null)
      first.setSelectionRange(first.value.length, first.value.length);
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
