/** One of a list, in a line of text. */
import { Button, Label, ListBox, ListBoxItem, Popover, Select, SelectValue } from 'react-aria-components';
import styled, { createGlobalStyle } from 'styled-components';

const Box = styled(Select)`
  display: inline-block;
  min-width: 0;
  .react-aria-Label {
    display: block;
    font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
    color: var(--ink-2);
  }
  .react-aria-Button {
    border: 0;
    border-bottom: var(--r-outline) solid var(--ink);
    background: none;
    min-height: 27px;
    padding: 0 var(--s18) 0 var(--s2);
    font: var(--w-firm) var(--t-name) / var(--snug) var(--letter);
    text-align: left;
    position: relative;
    max-width: 100%;
  }
  .react-aria-Button::after {
    content: '';
    position: absolute;
    right: var(--s4);
    top: 50%;
    width: var(--s6);
    height: var(--s6);
    border-right: var(--r-outline) solid var(--ink);
    border-bottom: var(--r-outline) solid var(--ink);
    transform: translateY(-70%) rotate(45deg);
  }
  @media (pointer: coarse) {
    .react-aria-Button {
      min-height: var(--target);
    }
  }
`;
/** The list hangs outside of the page's own tree, so it is inked here. */
export const ChooseInk = createGlobalStyle`
  .kobrix-list {
    background: var(--paper);
    border: var(--r-heavy) solid var(--ink);
    padding: 0;
    max-height: 320px;
    overflow: auto;
    outline: none;
  }
  .kobrix-list .react-aria-ListBoxItem {
    padding: var(--s4) var(--s12);
    font: var(--w-firm) var(--t-name) / var(--read) var(--letter);
    cursor: pointer;
    outline: none;
    min-height: var(--s28);
  }
  .kobrix-list .react-aria-ListBoxItem[data-focused] {
    background: var(--sunk);
  }
  .kobrix-list .react-aria-ListBoxItem[data-selected] {
    background: var(--ink);
    color: var(--paper);
  }
  @media (pointer: coarse) {
    .kobrix-list .react-aria-ListBoxItem {
      min-height: var(--target);
      display: flex;
      align-items: center;
    }
  }
`;

interface ChooseProps {
  label: string;
  value: string;
  options: readonly { id: string; label: string }[];
  /** Only those who hear the page are told its label. */
  quiet?: boolean;
  onChange: (id: string) => void;
}
export function Choose({ label, value, options, quiet = false, onChange }: ChooseProps) {
  return (
    <Box
      value={value}
      onChange={(key) => {
        if (key !== null) onChange(String(key));
      }}
    >
      <Label className={quiet ? 'visually-hidden' : 'react-aria-Label'}>{label}</Label>
      <Button>
        <SelectValue />
      </Button>
      <Popover offset={2}>
        <ListBox className="kobrix-list" items={options}>
          {(item) => <ListBoxItem id={item.id}>{item.label}</ListBoxItem>}
        </ListBox>
      </Popover>
    </Box>
  );
}
