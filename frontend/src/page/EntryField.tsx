/** One entry: its name, what was typed, the other unit, and how it stands; refused in words right under it. */
import { useId, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { Button, Input, Label, TextField, ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import type { Entry } from '../api/types';
import { useDraft } from '../ui/useDraft';
import { useEnter } from './entering';

const Box = styled.div`
  display: grid;
  justify-items: start;
  gap: var(--s2);
  min-width: 0;
  .name {
    font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
    color: var(--ink-2);
    background: var(--paper);
    padding-right: var(--s3);
  }
  .line {
    display: flex;
    align-items: baseline;
    width: 100%;
    min-height: 27px;
    background: var(--sunk);
    padding-right: var(--s6);
  }
  &[data-state='assumed'] .line,
  &[data-state='unknown'] .line {
    background: var(--paper);
    outline: var(--r-outline) dashed var(--ink-2);
    outline-offset: calc(0px - var(--r-outline));
  }
  &[data-here] .line {
    background: var(--paper);
    outline: var(--r-heavy) solid var(--plan);
    outline-offset: 0;
  }
  &[data-refused] .line {
    outline: var(--r-heavy) solid var(--danger);
  }
  .react-aria-TextField {
    flex: 1;
    min-width: 0;
  }
  .react-aria-Input {
    font: var(--w-strong) var(--t-figure) / 27px var(--letter);
    width: 100%;
    min-width: 0;
    border: 0;
    padding: 0 0 0 var(--s6);
    background: none;
    outline: none;
    text-overflow: ellipsis;
  }
  .react-aria-Input::placeholder {
    color: var(--ink-2);
    font-weight: var(--w-firm);
    opacity: 1;
  }
  &[data-here] .react-aria-Input {
    color: var(--plan);
  }
  .off {
    font: var(--w-firm) var(--t-note) / var(--one) var(--letter);
    white-space: nowrap;
  }
  .also {
    font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
    color: var(--ink-2);
    background: var(--paper);
    padding-right: var(--s3);
    white-space: nowrap;
  }
  .also[data-assumed] {
    color: var(--caution);
  }
  .wrong {
    font: var(--w-strong) var(--t-text) / var(--snug) var(--text);
    color: var(--danger);
    background: var(--paper);
    width: max(100%, 220px);
    position: relative;
    z-index: 2;
  }
  .choices {
    display: flex;
    flex-wrap: wrap;
  }
  .choices button {
    border: var(--r-outline) solid var(--ink);
    margin: 0 calc(0px - var(--r-outline)) calc(0px - var(--r-outline)) 0;
    background: var(--paper);
    padding: 0 var(--s8);
    min-height: 27px;
    font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
  }
  .choices button[data-selected] {
    background: var(--ink);
    color: var(--paper);
  }
  @media print {
    .choices:has([data-selected]) button:not([data-selected]) {
      display: none;
    }
    .choices button[data-selected] {
      background: none;
      color: var(--ink);
      border: 0;
      padding: 0;
    }
  }
  @media (pointer: coarse) {
    .line,
    .choices button {
      min-height: var(--target);
      align-items: center;
    }
    .react-aria-Input {
      line-height: var(--target);
    }
  }
`;
const Label_ = styled(Label)`
  cursor: default;
`;

const NOTHING: Partial<Record<Entry['kind'], string>> = { list: 'say 2 x 38.1', text: '', count: '1' };
const placeholderOf = (entry: Entry) => entry.default?.text ?? NOTHING[entry.kind] ?? '';

interface EntryFieldProps {
  entry: Entry;
  number?: number;
  /** Without the line below: the other unit and what is assumed are said elsewhere. */
  bare?: boolean;
  /** What is shown in an empty field, in place of an example. */
  hint?: string;
  children?: ReactNode;
}

export function EntryField(props: EntryFieldProps) {
  const { entry } = props;
  if (entry.kind === 'choice' || entry.kind === 'flag') return <Chosen {...props} />;
  return <Typed {...props} />;
}

function Typed({ entry, number, bare = false, hint }: EntryFieldProps) {
  const enter = useEnter();
  const draft = useDraft(entry.text, (text) => enter.onType(entry, text));
  const here = enter.here === entry.path;
  const help = useId();
  const keys = async (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key === 'Escape') {
      draft.giveUp();
    } else if (event.key === 'Enter') {
      const input = event.currentTarget;
      const stored = await draft.commit();
      // Whoever has gone on by himself meanwhile is not called back.
      const stays = document.activeElement === input || document.activeElement === document.body;
      if (stored && stays) enter.onNext(input);
    }
  };
  const off = entry.plus_minus ? `± ${entry.plus_minus.text}` : '';
  return (
    <Box
      data-state={entry.state}
      data-here={here || undefined}
      data-refused={draft.refused !== null || undefined}
      data-entry={entry.path}
    >
      <TextFieldName entry={entry} number={number} />
      <div className="line">
        <TextField
          aria-label={entry.label}
          value={draft.text}
          onChange={draft.type}
          isInvalid={draft.refused !== null}
          aria-describedby={help}
        >
          <Input
            data-path={entry.path}
            autoComplete="off"
            spellCheck={false}
            enterKeyHint="next"
            inputMode={enter.pad && entry.kind !== 'text' ? 'none' : undefined}
            placeholder={hint ?? placeholderOf(entry)}
            onKeyDown={(event) => void keys(event)}
            onBlur={() => draft.refused !== null || void draft.commit()}
            onFocus={(event) => {
              event.target.select();
              if (enter.pad) event.target.scrollIntoView({ block: 'center' });
              enter.onHere(entry.path);
            }}
          />
        </TextField>
        {off && <span className="off">{off}</span>}
      </div>
      <span
        id={help}
        className={bare ? 'visually-hidden' : 'also'}
        data-assumed={entry.state === 'assumed' || undefined}
      >
        {below(entry)}
      </span>
      {draft.refused && (
        <p className="wrong" role="alert">
          {draft.refused}
        </p>
      )}
    </Box>
  );
}

function below(entry: Entry): string {
  if (entry.state === 'assumed') return 'assumed';
  if (entry.state === 'unknown') return entry.needed ? 'not known yet' : '';
  return entry.other;
}

const TextFieldName = ({ entry, number }: { entry: Entry; number?: number }) => (
  <span className="name" aria-hidden="true">
    {number !== undefined ? `${number}  ` : ''}
    {entry.label}
  </span>
);

/** A choice on its way; `over`: it could not be stored yet, and what it was chosen over. */
interface Sent {
  value: string;
  over?: string;
}

function Chosen({ entry, number }: EntryFieldProps) {
  const enter = useEnter();
  const label = useId();
  // Enter held while it came here from the field before is let go here: that goes no further.
  const down = useRef<HTMLElement | null>(null);
  const options =
    entry.kind === 'flag'
      ? [
          { value: 'yes', label: 'yes' },
          { value: 'no', label: 'no' },
        ]
      : entry.choices;
  const now = entry.kind === 'flag' ? (entry.flag === null ? '' : entry.flag ? 'yes' : 'no') : entry.text;
  // What was chosen stands at once, until it is stored or refused.
  const [sent, setSent] = useState<Sent | null>(null);
  if (sent?.over !== undefined && sent.over !== now) setSent(null);
  const chosen = sent?.value ?? now;
  const choose = (value: string) => {
    const own: Sent = { value };
    const then = (next: Sent | null) => setSent((last) => (last === own ? next : last));
    setSent(own);
    enter.onChoose(entry, value).then(
      () => then(null),
      (error: { waits?: boolean }) => then(error.waits ? { value, over: now } : null),
    );
  };
  return (
    <Box
      data-state={entry.state}
      data-entry={entry.path}
      data-wide={options.reduce((sum, o) => sum + o.label.length + 3, 0) > 22 || undefined}
    >
      <Label_ id={label} className="name" elementType="span">
        {number !== undefined ? `${number}  ` : ''}
        {entry.label}
      </Label_>
      <ToggleButtonGroup
        className="choices"
        aria-labelledby={label}
        selectionMode="single"
        selectedKeys={chosen ? [chosen] : []}
        onSelectionChange={(keys) => {
          const [key] = keys;
          if (key !== undefined) choose(String(key));
        }}
      >
        {options.map((o) => (
          <ToggleButton
            key={o.value}
            id={o.value}
            onFocus={() => enter.onHere(entry.path)}
            onKeyDown={(event) => {
              if (event.key === 'Enter') down.current = event.currentTarget as HTMLElement;
            }}
            onKeyUp={(event) => {
              const here = event.currentTarget as HTMLElement;
              if (event.key === 'Enter' && down.current === here) enter.onNext(here);
              down.current = null;
            }}
          >
            {o.label}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </Box>
  );
}

export const Plain = styled(Button)`
  border: var(--r-outline) solid var(--ink);
  background: none;
  padding: 0 var(--s10);
  min-height: 27px;
  font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
  &[data-pressed] {
    background: var(--sunk);
  }
  @media (pointer: coarse) {
    min-height: var(--target);
    font-size: var(--t-head);
  }
  @media print {
    display: none;
  }
`;
