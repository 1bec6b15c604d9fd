/** Beside the plans: a new one from the one on the line, its name, and taking it out. */
import { memo, useState } from 'react';
import { Button, Dialog, DialogTrigger, Input, Label, Popover, TextArea, TextField } from 'react-aria-components';
import { Link } from 'react-router';
import styled, { createGlobalStyle } from 'styled-components';
import type { Job, Step } from '../api/types';

const Tools = styled.div`
  display: flex;
  align-items: center;
  gap: var(--s2);
  padding: 0 var(--s8);
  border-right: var(--r-hair) solid var(--rule);
  a {
    color: inherit;
    text-decoration: none;
  }
  button,
  a {
    border: var(--r-outline) solid var(--ink);
    background: none;
    min-height: var(--s28);
    min-width: var(--s28);
    padding: 0 var(--s6);
    font: var(--w-strong) var(--t-name) / var(--one) var(--letter);
    white-space: nowrap;
    display: grid;
    place-items: center;
  }
  path {
    stroke: var(--ink);
    stroke-width: var(--r-handle);
    stroke-linecap: round;
  }
  @media (pointer: coarse) {
    button,
    a {
      min-height: var(--target);
      min-width: var(--target);
    }
  }
`;
/** The panel hangs outside of the page's own tree, so it is inked here. */
export const PlanInk = createGlobalStyle`
  .kobrix-plan {
    background: var(--paper);
    border: var(--r-heavy) solid var(--ink);
    padding: var(--s12);
    width: min(340px, 92vw);
  }
  .kobrix-plan section {
    display: grid;
    gap: var(--s10);
    outline: none;
  }
  .kobrix-plan .react-aria-Label {
    display: block;
    color: var(--ink-2);
  }
  .kobrix-plan input {
    border: 0;
    border-bottom: var(--r-outline) solid var(--ink);
    background: var(--sunk);
    min-height: 32px;
    width: 100%;
    padding: 0 var(--s8);
    font: var(--w-strong) var(--t-figure) / 1 var(--letter);
  }
  .kobrix-plan button {
    border: var(--r-outline) solid var(--ink);
    background: none;
    min-height: 32px;
    padding: 0 var(--s10);
    font: var(--w-firm) var(--t-head) / var(--tight) var(--text);
    text-align: left;
  }
  .kobrix-plan textarea {
    border: 0;
    border-bottom: var(--r-outline) solid var(--ink);
    background: var(--sunk);
    width: 100%;
    padding: var(--s4) var(--s8);
    font: var(--w-firm) var(--t-head) / var(--snug) var(--text);
    resize: vertical;
  }
  .kobrix-plan .two {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: var(--s8);
  }
  .kobrix-plan button[data-disabled] {
    color: var(--ink-2);
    border-style: dashed;
  }
  .kobrix-plan button[data-danger] {
    border-color: var(--danger);
    color: var(--danger);
  }
  @media (pointer: coarse) {
    .kobrix-plan button,
    .kobrix-plan input {
      min-height: var(--target);
    }
  }
`;

const Glyph = ({ d }: { d: string }) => (
  <svg width="16" height="16" aria-hidden="true">
    <path d={d} />
  </svg>
);

interface PlanToolsProps {
  job: Job;
  using: string;
  onStep: (step: Step) => Promise<unknown>;
  onUse: (key: string) => void;
  onCompare?: () => void;
  /** One button for all: where there is no room for two. */
  small?: boolean;
}
export const PlanTools = memo(function PlanTools({
  job,
  using,
  onStep,
  onUse,
  onCompare,
  small = false,
}: PlanToolsProps) {
  const found = job.setups[0];
  const next = job.next_plan;
  const plans = (job.document['plans'] ?? []) as { name: string; note?: string }[];
  const place = plans.findIndex((plan) => plan.name === using);
  const note = plans[place]?.note ?? '';
  const moved = (by: 1 | -1) => {
    const at = place + by;
    if (place < 0 || at < 0 || at >= plans.length) return undefined;
    return () => void onStep({ label: `${using} moved`, plan: { do: 'move', name: using, at } }).catch(() => undefined);
  };
  const copy = () =>
    void onStep({ label: `${next} from ${using}`, plan: { do: 'copy', name: using, to: next, at: 0 } }).then(
      () => onUse(next),
      () => undefined,
    );
  return (
    <Tools className="noprint">
      {!small && (
        <Button onPress={copy} aria-label={`New plan from ${using}`}>
          <Glyph d="M8,3L8,13M3,8L13,8" />
        </Button>
      )}
      <DialogTrigger>
        <Button aria-label={`More about ${using}`}>
          <Glyph d="M3,8L3.1,8M8,8L8.1,8M13,8L13.1,8" />
        </Button>
        <Popover className="kobrix-plan" placement="bottom start">
          <Dialog aria-label={using}>
            {({ close }) => (
              <More
                key={using}
                name={using}
                fixed={using === found}
                note={note}
                onNote={(text) =>
                  void onStep({
                    label: `note on ${using}`,
                    under: using,
                    edits: [text === '' ? { op: 'remove', path: '/note' } : { path: '/note', value: text }],
                  }).catch(() => undefined)
                }
                onMove={{ earlier: moved(-1), later: moved(1) }}
                onCopy={
                  small
                    ? () => {
                        close();
                        copy();
                      }
                    : undefined
                }
                onRename={(to) =>
                  onStep({ label: `${using} is ${to}`, plan: { do: 'rename', name: using, to, at: 0 } }).then(() => {
                    onUse(to);
                    close();
                  })
                }
                onRemove={() => {
                  close();
                  void onStep({ label: `${using} out`, plan: { do: 'remove', name: using, at: 0 } }).then(
                    () => onUse(found ?? ''),
                    () => undefined,
                  );
                }}
                onCompare={
                  onCompare &&
                  (() => {
                    close();
                    onCompare();
                  })
                }
              />
            )}
          </Dialog>
        </Popover>
      </DialogTrigger>
      <Link
        to={`/jobs/${job.id}/match?setup=${encodeURIComponent(using)}`}
        aria-label={`Match: search other parts from ${using}`}
      >
        Match
      </Link>
    </Tools>
  );
});

interface MoreProps {
  name: string;
  fixed: boolean;
  note: string;
  onNote: (text: string) => void;
  /** One place along among the plans; undefined at the end. */
  onMove: { earlier: (() => void) | undefined; later: (() => void) | undefined };
  onRename: (to: string) => Promise<unknown>;
  onRemove: () => void;
  onCompare: (() => void) | undefined;
  onCopy: (() => void) | undefined;
}
function More({ name, fixed, note, onNote, onMove, onRename, onRemove, onCompare, onCopy }: MoreProps) {
  const [to, setTo] = useState(name);
  const [said, setSaid] = useState(note);
  const rename = () => {
    if (to.trim() && to.trim() !== name) void onRename(to.trim()).catch(() => undefined);
  };
  return (
    <>
      {onCopy && <Button onPress={onCopy}>New plan from {name}</Button>}
      {onCompare && <Button onPress={onCompare}>Side by side with the others</Button>}
      {fixed ? (
        <p>As found stays as it is called; plans are copied from it.</p>
      ) : (
        <>
          <TextField value={to} onChange={setTo} maxLength={80}>
            <Label>name of this plan</Label>
            <Input onKeyDown={(event) => event.key === 'Enter' && rename()} />
          </TextField>
          <Button onPress={rename}>Rename it</Button>
          <TextField value={said} onChange={setSaid} maxLength={400}>
            <Label>note on this plan</Label>
            <TextArea rows={2} onBlur={() => said.trim() !== note && onNote(said.trim())} />
          </TextField>
          <div className="two">
            <Button isDisabled={!onMove.earlier} onPress={onMove.earlier}>
              Move it earlier
            </Button>
            <Button isDisabled={!onMove.later} onPress={onMove.later}>
              Move it later
            </Button>
          </div>
          <Button data-danger="" onPress={onRemove}>
            Delete plan (can be undone)
          </Button>
        </>
      )}
    </>
  );
}
