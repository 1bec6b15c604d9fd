/** Finder and key list of a page, by their keys and by their buttons. */
import { useCallback, useMemo, useState } from 'react';
import { Button } from 'react-aria-components';
import { useNavigate } from 'react-router';
import { Finder, type Target } from './Finder';
import { KeyList } from './KeyList';
import { useKeys } from './keys';
import type { StageState } from '../api/types';

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
  const [open, setOpen] = useState<'find' | 'keys' | null>(null);
  const go = useNavigate();
  const close = useCallback(() => setOpen(null), []);
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
      ...targets,
    ],
    [stages, targets, go],
  );
  const buttons = useMemo(
    () => (
      <>
        <Button aria-label="Find" onPress={() => setOpen((now) => (now === 'find' ? null : 'find'))}>
          <kbd>/</kbd>
        </Button>
        <Button aria-label="Keys" onPress={() => setOpen((now) => (now === 'keys' ? null : 'keys'))}>
          <kbd>?</kbd>
        </Button>
      </>
    ),
    [],
  );
  const over =
    open === 'find' ? <Finder targets={found} onClose={close} /> : open === 'keys' ? <KeyList onClose={close} /> : null;
  return { buttons, over };
}
