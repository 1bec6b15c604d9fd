/** Everything the Measure views share: the sheet, which section and entry is looked at, and the steps entries make. */
import { useCallback, useEffect, useMemo, useReducer, useRef } from 'react';
import { useSearchParams } from 'react-router';
import type { Job } from '../../api/client';
import { useMatters, useSheet } from '../../api/measure';
import { useStoring } from '../../api/jobs';
import { useSteps, type Steps } from '../../api/steps';
import type { Entry, Matter, Matters, Section, Sheet } from '../../api/types';
import { preferredFor, usePreferred, type Preferred } from '../../units/preference';
import { focusEntry, focusNext, type Entering } from './entering';
import { editsStep, toleranceStep, typedStep, unknownStep, valueStep } from './steps';
import type { SheetEdit } from '../../api/types';

interface Looking {
  section: string;
  here: string | null;
}
type Look =
  { type: 'section'; section: string } | { type: 'here'; path: string } | { type: 'go'; section: string; path: string };
function looking(state: Looking, look: Look): Looking {
  switch (look.type) {
    case 'section':
      return { section: look.section, here: null };
    case 'here':
      return { ...state, here: look.path };
    case 'go':
      return { section: look.section, here: look.path };
  }
}

export const CONDITION = 'condition';
export const entriesOf = (section: Section): Entry[] => section.groups.flatMap((g) => g.entries);

export interface Measure {
  job: Job;
  sheet: Sheet;
  matters: Matters | null;
  section: Section | null;
  /** Key of the section looked at; `condition` for the notes. */
  looked: string;
  here: Entry | null;
  steps: Steps;
  entering: Entering;
  preferred: Preferred;
  setup: string;
  onUse: (setup: string) => void;
  onSection: (key: string) => void;
  onGo: (section: string, path: string) => void;
  onNextUnknown: () => void;
  onUnknown: (entry: Entry) => void;
  onTolerance: (entry: Entry, text: string) => Promise<unknown>;
  onType: (entry: Entry, text: string) => Promise<unknown>;
  onEdits: (label: string, edits: readonly SheetEdit[]) => void;
}

/** What is worth measuring next: needed for a push, then for travel, then what matters most, then the rest. */
export function nextUnknown(
  sheet: Sheet,
  matters: Matters | null,
  from: string | null,
): { section: string; path: string } | null {
  const open = sheet.sections.flatMap((s) =>
    entriesOf(s)
      .filter((e) => e.state === 'unknown' && !e.unsure && !e.more)
      .map((e) => ({ section: s.key, path: e.path, needed: e.needed })),
  );
  const matter = nextMatter(sheet, matters);
  const kinds = [
    open.filter((e) => e.needed === 'decel'),
    open.filter((e) => e.needed === 'travel'),
    matter ? [{ section: matter.section.key, path: matter.entry.path }] : [],
    open.filter((e) => e.needed === null),
  ].filter((kind) => kind.length > 0);
  // Round and round among what is wanted most: pressed again, the next of the same kind.
  const most = kinds[0] ?? [];
  const at = most.findIndex((e) => e.path === from);
  if (at >= 0 && most.length === 1 && kinds[1]) return kinds[1][0] ?? null;
  return most[(at + 1) % Math.max(1, most.length)] ?? null;
}

export interface Ranked {
  section: Section;
  entry: Entry;
  matter: Matter;
}
const WORTH = 0.2;
/** The assumed entry that moves the answer most, and the one of those that can be measured in a garage. */
export function mostMatter(sheet: Sheet, matters: Matters | null): Ranked | null {
  return rankedOf(sheet, matters).find((r) => r.matter.assumed && weight(r.matter) >= WORTH) ?? null;
}
export function nextMatter(sheet: Sheet, matters: Matters | null): Ranked | null {
  return (
    rankedOf(sheet, matters).find((r) => r.matter.assumed && !r.entry.guess && weight(r.matter) >= WORTH / 4) ?? null
  );
}
const weight = (m: Matter) => Math.max(Math.abs(m.push_rank), Math.abs(m.travel_rank));
export function rankedOf(sheet: Sheet, matters: Matters | null): Ranked[] {
  const at = new Map(
    sheet.sections.flatMap((s) => entriesOf(s).map((e) => [e.path, { section: s, entry: e }] as const)),
  );
  return (matters?.entries ?? []).flatMap((matter) => {
    const path = matter.path.startsWith('vehicle') ? matter.path : `${sheet.root}.${matter.path}`;
    const found = at.get(path);
    return found ? [{ ...found, matter }] : [];
  });
}

export function useMeasure(job: Job): Measure | null {
  const [params, setParams] = useSearchParams();
  const names = job.view.setups.map((s) => s.key);
  const asked = params.get('plan');
  const setup = asked !== null && names.includes(asked) ? asked : (names[0] ?? 'as found');
  const sheet = useSheet(job.id, job.revision, setup);
  const steps = useSteps(job);
  const preferred = usePreferred();
  const complete = sheet.data?.needs.decel.length === 0;
  const matters = useMatters(job.id, job.revision, setup, complete);
  const [look, dispatch] = useReducer(looking, { section: params.get('part') ?? '', here: null });
  const goal = useRef<string | null>(params.get('field'));

  // An entry in another section is there only once that section is drawn.
  useEffect(() => {
    if (goal.current !== null && focusEntry(goal.current)) goal.current = null;
  }, [look, sheet.data]);

  const { onStep } = steps;
  const { document } = job;
  const onType = useCallback(
    (entry: Entry, text: string) => onStep(typedStep(document, entry, text, preferredFor(entry.unit, preferred)), true),
    [onStep, document, preferred],
  );
  const onEdits = useCallback(
    (label: string, edits: readonly SheetEdit[]) =>
      void onStep(editsStep(document, label, edits)).catch(() => undefined),
    [onStep, document],
  );
  const onChoose = useCallback(
    (entry: Entry, value: string) => {
      if (entry.kind === 'flag') void onStep(valueStep(document, entry, value === 'yes')).catch(() => undefined);
      else onEdits(entry.label, entry.choices.find((c) => c.value === value)?.edits ?? []);
    },
    [onStep, onEdits, document],
  );
  const onHere = useCallback((path: string) => dispatch({ type: 'here', path }), []);
  const entering = useMemo(
    (): Entering => ({ here: look.here, pad: false, onHere, onType, onChoose, onNext: focusNext }),
    [look.here, onHere, onType, onChoose],
  );
  const onGo = useCallback((section: string, path: string) => {
    goal.current = path;
    dispatch({ type: 'go', section, path });
  }, []);
  const data = sheet.data ?? null;
  const known = complete ? (matters.data ?? null) : null;
  // Asked for while something is still being stored, the next one is looked for on the sheet that comes of it.
  const storing = useStoring(job.id);
  const settled = !storing && !sheet.isPlaceholderData;
  const waiting = useRef(false);
  const onNextUnknown = useCallback(() => {
    waiting.current = !settled;
    const next = settled && data ? nextUnknown(data, known, look.here) : null;
    if (next) onGo(next.section, next.path);
  }, [settled, data, known, look.here, onGo]);
  useEffect(() => {
    if (waiting.current && settled) onNextUnknown();
  }, [settled, onNextUnknown]);

  if (!data) return null;
  const section = data.sections.find((s) => s.key === look.section) ?? null;
  const looked = look.section === CONDITION ? CONDITION : ((section ?? data.sections[0])?.key ?? '');
  const shown = looked === CONDITION ? null : (section ?? data.sections[0] ?? null);
  const here = shown ? (entriesOf(shown).find((e) => e.path === look.here) ?? null) : null;
  return {
    job,
    sheet: data,
    matters: known,
    section: shown,
    looked,
    here,
    steps,
    entering,
    preferred,
    setup,
    onUse: (key) => {
      setParams(key === names[0] ? {} : { plan: key }, { replace: true });
    },
    onSection: (key) => dispatch({ type: 'section', section: key }),
    onGo,
    onNextUnknown,
    onUnknown: (entry) => void onStep(unknownStep(document, entry)).catch(() => undefined),
    onTolerance: (entry, text) => onStep(toleranceStep(entry, text, preferredFor(entry.unit, preferred)), true),
    onType,
    onEdits,
  };
}
