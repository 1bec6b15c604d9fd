/** Finder and key list of a page, by their keys and by their buttons. */
import { useCallback, useMemo, useState } from 'react';
import { Button } from 'react-aria-components';
import { useNavigate } from 'react-router';
import { Finder, type Target } from './Finder';
import { KeyList } from './KeyList';
import { useKeys } from './keys';
import { BUILT, STAGES } from './StageStrip';

interface HelpsProps {
  job: number;
  targets: readonly Target[];
  keys?: Readonly<Record<string, () => void>>;
  onUndo: () => void;
  onRedo: () => void;
}
const NO_KEYS = {};

/** What a page shows for finding and for its keys: the buttons for its head, and what lies over it. */
export function useHelps({ job, targets, keys = NO_KEYS, onUndo, onRedo }: HelpsProps) {
  const [open, setOpen] = useState<'find' | 'keys' | null>(null);
  const go = useNavigate();
  const close = useCallback(() => setOpen(null), []);
  const stages = useMemo(
    () =>
      STAGES.flatMap((name, i) => {
        const where = BUILT[name];
        return where ? [{ key: String(i + 1), name, go: () => void go(`/jobs/${job}/${where}`) }] : [];
      }),
    [go, job],
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
  const every = useMemo(
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
    open === 'find' ? <Finder targets={every} onClose={close} /> : open === 'keys' ? <KeyList onClose={close} /> : null;
  return { buttons, over };
}
