/** Everything the Measure views share: the sheet, which section and entry is looked at, and the steps entries make. */
import { useCallback, useEffect, useMemo, useReducer, useRef } from 'react';
import { useSearchParams } from 'react-router';
import { useSteps, useStoring, type Steps } from '../../api/changes';
import { useSensitivity } from '../../api/measure';
import { useVerdicts } from '../../api/size';
import type {
  Entry,
  FileEdit,
  Job,
  MeasureView,
  Section,
  SensitiveEntry,
  Sensitivity,
  Step,
  Verdicts,
} from '../../api/types';
import { preferredFor, usePreferred, type Preferred } from '../../units/preference';
import { focusEntry, focusNext, type Entering } from '../../page/entering';
import { exactStep, toleranceStep, typedStep, unknownStep, valueStep } from '../../chain/entrySteps';

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
  sheet: MeasureView;
  sensitivity: Sensitivity | null;
  /** What the setups are told once their trials have run. */
  verdicts: Verdicts | null;
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
  onExact: (entry: Entry, exact: boolean) => void;
  onType: (entry: Entry, text: string) => Promise<unknown>;
  onEdits: (label: string, edits: readonly FileEdit[]) => void;
  onStep: Steps['onStep'];
}

/** What is worth measuring next: needed for a push, then for travel, then what matters most, then the rest. */
export function nextUnknown(
  sheet: MeasureView,
  sensitivity: Sensitivity | null,
  from: string | null,
): { section: string; path: string } | null {
  const open = sheet.sections.flatMap((s) =>
    entriesOf(s)
      .filter((e) => e.state === 'unknown' && !e.unsure && !e.more)
      .map((e) => ({ section: s.key, path: e.path, needed: e.needed })),
  );
  const next = mostSensitive(sheet, sensitivity, true);
  const kinds = [
    open.filter((e) => e.needed === 'decel'),
    open.filter((e) => e.needed === 'travel'),
    next ? [{ section: next.section.key, path: next.entry.path }] : [],
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
  sensitive: SensitiveEntry;
}
const MATTERS = 0.2; // of the whole doubt of the push or the travel
const rank = (e: SensitiveEntry) => Math.max(Math.abs(e.push_rank), Math.abs(e.travel_rank));
/** The assumed entry that moves the answer most; of those that a tape can measure, one that moves it by a quarter of that will do. */
export function mostSensitive(sheet: MeasureView, sensitivity: Sensitivity | null, measurable: boolean): Ranked | null {
  const least = measurable ? MATTERS / 4 : MATTERS;
  const open = (r: Ranked) =>
    r.sensitive.standing === 'assumed' && rank(r.sensitive) >= least && !(measurable && r.entry.guess);
  return rankedOf(sheet, sensitivity).find(open) ?? null;
}
export function rankedOf(sheet: MeasureView, sensitivity: Sensitivity | null): Ranked[] {
  const at = new Map(
    sheet.sections.flatMap((s) => entriesOf(s).map((e) => [e.path, { section: s, entry: e }] as const)),
  );
  return (sensitivity?.entries ?? []).flatMap((sensitive) => {
    const found = at.get(sensitive.path.startsWith('vehicle') ? sensitive.path : `${sheet.root}.${sensitive.path}`);
    return found ? [{ ...found, sensitive }] : [];
  });
}

export function useMeasure(job: Job, sheet: MeasureView): Measure {
  const [params, setParams] = useSearchParams();
  const { setup } = sheet;
  const steps = useSteps(job, 'measure', params.get('plan'));
  const preferred = usePreferred();
  const complete = sheet.needs.decel.length === 0;
  const sensitivity = useSensitivity(job.id, job.revision, setup, complete).data;
  const verdicts = useVerdicts(job.id, job.revision, complete).data ?? null;
  const [look, dispatch] = useReducer(looking, { section: params.get('part') ?? '', here: null });
  const goal = useRef<string | null>(params.get('field'));

  // An entry in another section is there only once that section is drawn.
  useEffect(() => {
    if (goal.current !== null && focusEntry(goal.current)) goal.current = null;
  }, [look, sheet]);

  const { onStep } = steps;
  const unit = useCallback((entry: Entry) => preferredFor(entry.unit, preferred), [preferred]);
  const onType = useCallback(
    (entry: Entry, text: string) => onStep(typedStep(entry, text, unit(entry)), true),
    [onStep, unit],
  );
  const take = useCallback((step: Step) => void onStep(step).catch(() => undefined), [onStep]);
  const onEdits = useCallback(
    (label: string, edits: readonly FileEdit[]) => take({ label, follow: true, edits: [...edits] }),
    [take],
  );
  const onChoose = useCallback(
    (entry: Entry, value: string) => {
      if (entry.kind === 'flag') return onStep(valueStep(entry, value === 'yes'));
      const edits = entry.choices.find((c) => c.value === value)?.edits ?? [];
      return onStep({ label: entry.label, follow: true, edits: [...edits] });
    },
    [onStep],
  );
  const onHere = useCallback((path: string) => dispatch({ type: 'here', path }), []);
  const onGo = useCallback((section: string, path: string) => {
    goal.current = path;
    dispatch({ type: 'go', section, path });
  }, []);
  // From a section's last entry to the first of the next one.
  const onNext = useCallback(
    (from: HTMLElement) => {
      if (focusNext(from)) return;
      const at = sheet.sections.findIndex((s) => s.key === (look.section || sheet.sections[0]?.key));
      const next = sheet.sections[at + 1];
      const entry = next && entriesOf(next).find((e) => !e.more);
      if (next && entry) onGo(next.key, entry.path);
      else from.blur();
    },
    [sheet, look.section, onGo],
  );
  const entering = useMemo(
    (): Entering => ({ here: look.here, pad: false, onHere, onType, onChoose, onNext }),
    [look.here, onHere, onType, onChoose, onNext],
  );
  const known = complete ? (sensitivity ?? null) : null;
  // Asked for while something is still being stored, the next one is looked for on the sheet that comes of it.
  const storing = useStoring(job.id);
  const waiting = useRef(false);
  const onNextUnknown = useCallback(() => {
    waiting.current = storing;
    const next = storing ? null : nextUnknown(sheet, known, look.here);
    if (next) onGo(next.section, next.path);
  }, [storing, sheet, known, look.here, onGo]);
  useEffect(() => {
    if (waiting.current && !storing) onNextUnknown();
  }, [storing, onNextUnknown]);

  const section =
    look.section === CONDITION
      ? null
      : (sheet.sections.find((s) => s.key === look.section) ?? sheet.sections[0] ?? null);
  return {
    job,
    sheet,
    sensitivity: known,
    verdicts,
    section,
    looked: look.section === CONDITION ? CONDITION : (section?.key ?? ''),
    here: section ? (entriesOf(section).find((e) => e.path === look.here) ?? null) : null,
    steps,
    entering,
    preferred,
    setup,
    onUse: (key) => setParams(key === job.setups[0] ? {} : { plan: key }, { replace: true }),
    onSection: (key) => dispatch({ type: 'section', section: key }),
    onGo,
    onNextUnknown,
    onUnknown: (entry) => take(unknownStep(entry)),
    onExact: (entry, exact) => take(exactStep(entry, exact)),
    onTolerance: (entry, text) => onStep(toleranceStep(entry, text, unit(entry)), true),
    onType,
    onEdits,
    onStep,
  };
}
