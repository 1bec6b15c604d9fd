/** Where the finder goes from Size: plans, links and every field of the sheet. */
import { useMemo } from 'react';
import { useNavigate } from 'react-router';
import type { Job } from '../../api/client';
import { useSheet } from '../../api/measure';
import type { Target } from '../../ui/Finder';
import type { Incomplete, Size } from './useSize';
import { LINKS } from './words';

const press = (label: string) =>
  document.querySelector(`[aria-label="${label}"]`)?.dispatchEvent(new MouseEvent('click', { bubbles: true }));

export function useTargets(job: Job, size: Size | Incomplete): Target[] {
  const go = useNavigate();
  const incomplete = 'incomplete' in size;
  const setup = incomplete ? size.incomplete.key : size.setup.key;
  const onUse = incomplete ? size.use : size.onUse;
  const sheet = useSheet(job.id, job.revision, setup);
  return useMemo(() => {
    const plans = job.view.setups.map((s) => ({
      id: `plan ${s.key}`,
      label: s.name,
      note: 'on the line',
      go: () => onUse(s.key),
    }));
    const links = incomplete
      ? []
      : LINKS.map((name) => ({
          id: `link ${name}`,
          label: name,
          note: 'its working',
          go: () => press(`${name}: working`),
        }));
    const fields = (sheet.data?.sections ?? []).flatMap((s) =>
      s.groups.flatMap((g) =>
        g.entries.map((e) => ({
          id: e.path,
          label: e.label,
          note: s.title,
          go: () =>
            void go(
              `/jobs/${job.id}/measure?plan=${encodeURIComponent(setup)}&part=${s.key}&field=${encodeURIComponent(e.path)}`,
            ),
        })),
      ),
    );
    const match = {
      id: 'match',
      label: 'Match',
      note: 'search other parts',
      go: () => void go(`/jobs/${job.id}/match?setup=${encodeURIComponent(setup)}`),
    };
    return [...plans, match, ...links, ...fields];
  }, [job.view.setups, job.id, incomplete, onUse, sheet.data, setup, go]);
}
