/** A field in a drawing or a row of parts: takes what people say, keeps it until the server has read it. */
import type { KeyboardEvent } from 'react';
import { Input, Label, TextField } from 'react-aria-components';
import styled from 'styled-components';
import { Refusal } from './Refusal';
import { useDraft } from './useDraft';

const Box = styled(TextField)`
  display: inline-flex;
  align-items: baseline;
  gap: var(--s4);
  min-width: 0;
  .react-aria-Label {
    font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
    color: var(--ink-2);
    white-space: nowrap;
  }
  .react-aria-Input {
    font: var(--w-firm) var(--t-name) / var(--snug) var(--letter);
    width: 100%;
    min-width: 0;
    min-height: var(--s20);
    padding: 0 var(--s3);
    border: 0;
    border-bottom: var(--r-outline) solid var(--ink);
    border-radius: 0;
    background: var(--sunk);
    text-overflow: ellipsis;
  }
  .react-aria-Input[data-focused] {
    background: var(--paper);
    border-bottom-color: var(--plan);
    outline: var(--r-heavy) solid var(--plan);
    outline-offset: 0;
  }
  &[data-invalid] .react-aria-Input {
    border-bottom: var(--r-heavy) solid var(--danger);
  }
  position: relative;
  @media (pointer: coarse) {
    .react-aria-Input {
      min-height: var(--target);
      font-size: var(--t-figure);
    }
  }
`;

interface FieldProps {
  label: string;
  /** Whether the label is seen; it is always there for a screen reader. */
  shown?: boolean;
  /** What it is called where its label is only a letter; the finder knows it by this. */
  name?: string;
  value: string;
  placeholder?: string;
  className?: string;
  /** Whether what was refused is said under the field itself; the page says it where not. */
  saysRefused?: boolean;
  onCommit: (text: string) => Promise<unknown>;
  /** Up and down keys, to the next size; absent where there is none. */
  onStep?: (direction: 1 | -1) => void;
}

export function Field(props: FieldProps) {
  const { label, shown = true, name, value, placeholder, className, saysRefused = false, onCommit, onStep } = props;
  const draft = useDraft(value, onCommit);

  function keys(event: KeyboardEvent<HTMLInputElement>) {
    if (event.key === 'Enter') void draft.commit();
    else if (event.key === 'Escape') draft.giveUp();
    else if (onStep && !draft.typing && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      event.preventDefault();
      onStep(event.key === 'ArrowUp' ? 1 : -1);
    }
  }

  return (
    <Box
      className={className}
      aria-label={name ?? (shown ? undefined : label)}
      value={draft.text}
      onChange={draft.type}
      isInvalid={draft.refused !== null}
    >
      {shown && <Label>{label}</Label>}
      <Input
        data-field={name ?? label}
        autoComplete="off"
        spellCheck={false}
        enterKeyHint="done"
        placeholder={placeholder}
        onKeyDown={keys}
        onBlur={() => draft.refused !== null || void draft.commit()}
        onFocus={(event) => event.target.select()}
      />
      <Refusal>{draft.changed || saysRefused ? draft.refused : null}</Refusal>
    </Box>
  );
}
