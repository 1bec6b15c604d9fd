/** Finder and key list of a page, by their keys and by their buttons. */
import { useCallback, useMemo, useState } from 'react';
import { Button } from 'react-aria-components';
import { useNavigate } from 'react-router';
import type { StageState } from '../api/types';
import type { FinderProps, Target } from './Finder';
import { useKeys } from './keys';
import { later } from './later';
import { FIND, Overlay, useOver } from './Over';
import { saveAsFile } from './saveAsFile';
import { usePreferred } from '../units/preference';

/** What is typed while the finder is on its way is kept for it. */
function FinderWait({ typed, onType, onClose }: FinderProps) {
  const ref = useOver(onClose);
  return (
    <Overlay ref={ref} role="search" aria-label="Find">
      <label>
        <span className="react-aria-Label">{FIND}</span>
        <input
          className="react-aria-Input"
          value={typed}
          onChange={(event) => onType(event.target.value)}
          autoComplete="off"
        />
      </label>
    </Overlay>
  );
}
const Finder = later(async () => (await import('./Finder')).Finder, FinderWait);
const KeyList = later(async () => (await import('./KeyList')).KeyList);
const Units = later(async () => (await import('./KeyList')).Units);

interface HelpsProps {
  job: number;
  stages: readonly StageState[];
  targets: readonly Target[];
  keys?: Readonly<Record<string, () => void>>;
  onUndo: () => void;
  onRedo: () => void;
}
const NO_KEYS = {};

/** What a page shows for finding and for its keys: the buttons for its head, and what lies over it. */
export function useHelps({ job, stages: every, targets, keys = NO_KEYS, onUndo, onRedo }: HelpsProps) {
  const [open, setOpen] = useState<'find' | 'keys' | 'units' | null>(null);
  const go = useNavigate();
  const [typed, setTyped] = useState('');
  const close = useCallback(() => {
    setOpen(null);
    setTyped('');
  }, []);
  const stages = useMemo(
    () =>
      every.flatMap(({ title, path }, i) =>
        path === null ? [] : [{ key: String(i + 1), name: title, go: () => void go(`/jobs/${job}/${path}`) }],
      ),
    [go, job, every],
  );
  const all = useMemo(
    () => ({
      '/': () => setOpen('find'),
      '?': () => setOpen('keys'),
      ...Object.fromEntries(stages.map((s) => [s.key, s.go])),
      ...keys,
    }),
    [stages, keys],
  );
  useKeys(all, onUndo, onRedo);
  const found = useMemo(
    () => [
      ...stages.map((s) => ({ id: `stage ${s.name}`, label: s.name, note: 'stage', go: s.go })),
      { id: 'jobs', label: 'All jobs', note: 'the wall', go: () => void go('/') },
      { id: 'questions', label: 'Questions people ask', note: 'help', go: () => void go(`/jobs/${job}/questions`) },
      { id: 'files', label: 'Files, a copy to lend, remarks', note: 'job', go: () => void go(`/jobs/${job}/files`) },
      { id: 'file', label: 'Save this job as a file', note: 'job', go: () => saveAsFile(job) },
      { id: 'print', label: 'Print this sheet', note: 'paper', go: () => window.print() },
      ...targets,
    ],
    [stages, targets, go, job],
  );
  const { shownForce, shownPressure, shownLength } = usePreferred();
  const turn = useCallback((to: 'find' | 'keys' | 'units') => setOpen((now) => (now === to ? null : to)), []);
  const buttons = useMemo(
    () => (
      <>
        <Button onPress={() => turn('units')} aria-expanded={open === 'units'}>
          Units <em>{`${shownForce}, ${shownPressure}, ${shownLength}`}</em>
        </Button>
        <Button onPress={() => turn('find')} aria-expanded={open === 'find'}>
          Find <kbd>/</kbd>
        </Button>
        <Button onPress={() => turn('keys')} aria-expanded={open === 'keys'}>
          Keys <kbd>?</kbd>
        </Button>
        <Button onPress={() => window.print()}>Print</Button>
      </>
    ),
    [turn, open, shownForce, shownPressure, shownLength],
  );
  const over = {
    find: <Finder targets={found} typed={typed} onType={setTyped} onClose={close} />,
    keys: <KeyList job={job} onClose={close} />,
    units: <Units onClose={close} />,
  };
  return { buttons, over: open === null ? null : over[open] };
}
