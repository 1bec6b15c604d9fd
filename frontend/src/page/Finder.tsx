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
  return (
    <Overlay ref={ref} role="search" aria-label="Find">
      <Autocomplete filter={words} inputValue={typed} onInputChange={onType}>
        <SearchField>
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
