/** Where the finder goes from Size: plans, links and every field of the sheet. */
import { useMemo } from 'react';
import { useNavigate } from 'react-router';
import type { Job } from '../../api/client';
import { useSheet } from '../../api/measure';
import type { Solved } from '../../api/types';
import type { Target } from '../../ui/Finder';
import { pistonsName, rotorName } from './PartFields';
import { bring, INSTRUMENTS, type Instrument } from './slots';
import type { Incomplete, Size } from './useSize';
import { LINKS } from './words';

const press = (label: string) =>
  document.querySelector(`[aria-label="${label}"]`)?.dispatchEvent(new MouseEvent('click', { bubbles: true }));

const PATIENCE = 60; // frames
/** The focus put on something of this page, once it is there. */
function focusOn(find: () => HTMLElement | null | undefined, frames = PATIENCE) {
  window.requestAnimationFrame(() => {
    const found = find();
    if (!found && frames > 0) return focusOn(find, frames - 1);
    found?.scrollIntoView({ block: 'nearest' });
    found?.focus();
  });
}
const focusField = (name: string) =>
  focusOn(() => [...document.querySelectorAll('input')].find((input) => input.dataset['field'] === name));
/** An instrument brought to the strip; what lies over the strip is closed as by a key. */
function lookAt(id: Instrument) {
  bring(id);
  window.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }));
  focusOn(() => document.getElementById(id));
}

/** Fields of the sheet: what a person calls them, and what they are called there. */
function fieldsOf({ parts }: Solved): [string, string][] {
  const { stations, cylinder } = parts;
  const bores = cylinder.kind === 'twin' ? ['front bore', 'rear bore'] : ['Cylinder bore'];
  const rear = stations.find((s) => s.axle === 'rear');
  return [
    ['Push', 'Push'],
    ['Stop wanted', 'Stop wanted'],
    ['Pivot to pad', 'pad'],
    ['Pivot to pin', 'pin'],
    ...bores.map((name): [string, string] => [name, name]),
    ...(rear ? [['Valve knee', 'knee'] satisfies [string, string]] : []),
    ...(rear && rear.valve_place !== null ? [['Valve slope', 'slope'] satisfies [string, string]] : []),
    ...stations.flatMap((s): [string, string][] => [
      [pistonsName(s), pistonsName(s)],
      [rotorName(s), rotorName(s)],
    ]),
  ];
}

export function useTargets(job: Job, size: Size | Incomplete): Target[] {
  const go = useNavigate();
  const incomplete = 'incomplete' in size;
  const setup = incomplete ? size.incomplete.key : size.setup.key;
  const onUse = incomplete ? size.use : size.onUse;
  const solved = incomplete ? null : size.solved;
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
    const own = solved
      ? fieldsOf(solved).map(([label, name]) => ({
          id: `field ${label}`,
          label,
          note: 'on this sheet',
          go: () => focusField(name),
        }))
      : [];
    const instruments = incomplete
      ? []
      : INSTRUMENTS.map(({ id, label, note }) => ({ id: `instrument ${id}`, label, note, go: () => lookAt(id) }));
    const match = {
      id: 'match',
      label: 'Match',
      note: 'search other parts',
      go: () => void go(`/jobs/${job.id}/match?setup=${encodeURIComponent(setup)}`),
    };
    return [...plans, match, ...own, ...instruments, ...links, ...fields];
  }, [job.view.setups, job.id, incomplete, solved, onUse, sheet.data, setup, go]);
}
