/** Where the finder goes from Size: plans, links, instruments and every field of the sheet. */
import { useMemo } from 'react';
import { useNavigate } from 'react-router';
import type { MeasureSheet, PathView, SetupView } from '../../api/types';
import { drawnLines } from '../../chain/geometry';
import { pistonsName, rotorName } from '../../chain/PartFields';
import { linkNames } from '../../chain/words';
import type { Target } from '../../page/Finder';
import { focusOn } from '../../ui/focus';
import { bringIntoStrip, INSTRUMENTS, type Instrument } from './instrumentChoice';
import type { Acts, Reading } from './useSize';

const focusField = (name: string) =>
  focusOn(() => [...document.querySelectorAll('input')].find((input) => input.dataset['field'] === name));

/** Fields of the sheet: what a person calls them, and what they are called there. */
function fieldsOf({ parts }: PathView): [string, string][] {
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

export function useTargets(
  setups: readonly SetupView[],
  job: number,
  setup: string,
  reading: Reading | null,
  sheet: MeasureSheet | undefined,
  { onUse, onBeneath }: Acts,
): Target[] {
  const go = useNavigate();
  const solved = reading?.solved ?? null;
  return useMemo(() => {
    const query = encodeURIComponent(setup);
    const plans = setups.map((s) => ({
      id: `plan ${s.key}`,
      label: s.name,
      note: 'on the line',
      go: () => onUse(s.key),
    }));
    const match = {
      id: 'match',
      label: 'Match',
      note: 'search other parts',
      go: () => void go(`/jobs/${job}/match?setup=${query}`),
    };
    const fields = (sheet?.sections ?? []).flatMap((s) =>
      s.groups.flatMap((g) =>
        g.entries.map((e) => ({
          id: e.path,
          label: e.label,
          note: s.title,
          go: () => void go(`/jobs/${job}/measure?plan=${query}&part=${s.key}&field=${encodeURIComponent(e.path)}`),
        })),
      ),
    );
    if (!solved) return [...plans, match, ...fields];
    const own = fieldsOf(solved).map(([label, name]) => ({
      id: `field ${label}`,
      label,
      note: 'on this sheet',
      go: () => focusField(name),
    }));
    const links = linkNames(solved.parts.pedal.kind, drawnLines(solved).length > 1).map((name, link) => ({
      id: `link ${name}`,
      label: name,
      note: 'its working',
      go: () => onBeneath({ link }),
    }));
    const lookAt = (id: Instrument) => {
      bringIntoStrip(id);
      onBeneath('instruments');
      focusOn(() => document.getElementById(id));
    };
    const instruments = INSTRUMENTS.map(({ id, label, note }) => ({
      id: `instrument ${id}`,
      label,
      note: note(),
      go: () => lookAt(id),
    }));
    return [...plans, match, ...own, ...instruments, ...links, ...fields];
  }, [setups, job, setup, solved, sheet, onUse, onBeneath, go]);
}
