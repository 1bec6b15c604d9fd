/** One place to go from: any stage, plan, link, instrument or field by a few letters of its name. */
import { useMemo } from 'react';
import { Autocomplete, Input, Label, ListBox, ListBoxItem, SearchField, useFilter } from 'react-aria-components';
import { FIND, Overlay, useOver } from './Over';

export interface Target {
  id: string;
  label: string;
  note: string;
  go: () => void;
}

export interface FinderProps {
  targets: readonly Target[];
  /** What was typed already. */
  typed: string;
  onType: (text: string) => void;
  onClose: () => void;
}
export function Finder({ targets, typed, onType, onClose }: FinderProps) {
  const { contains } = useFilter({ sensitivity: 'base' });
  const items = useMemo(() => [...targets], [targets]);
  const ref = useOver(onClose);
  const words = (text: string, said: string) => said.split(/\s+/).every((w) => contains(text, w));
  // What was typed before the finder was there has none of its answers looked at yet: Enter takes the first.
  const first = () => {
    if (ref.current?.querySelector('[role=option][data-focused]')) return;
    const found = items.find((t) => words(`${t.label} ${t.note}`, typed));
    if (typed.trim() === '' || found === undefined) return;
    onClose();
    found.go();
  };
  return (
    <Overlay ref={ref} role="search" aria-label="Find">
      <Autocomplete filter={words} inputValue={typed} onInputChange={onType}>
        <SearchField onSubmit={first}>
          <Label>{FIND}</Label>
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
