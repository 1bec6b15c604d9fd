/** The steps of entries. What is measured as found also holds for the plans that had the same there: the server follows them. */
import type { Entry, Step } from '../api/types';
import { pointer } from './place';

const followed = (entry: Entry, edit: Partial<NonNullable<Step['edits']>[number]>, label = entry.label): Step => ({
  label,
  follow: true,
  edits: [{ path: pointer(entry.path), ...edit }],
});

export const typedStep = (entry: Entry, text: string, preferred?: string): Step =>
  followed(entry, { text, ...(preferred === undefined ? {} : { preferred }) });

export const valueStep = (entry: Entry, value: unknown): Step => followed(entry, { value });

/** "Don't know": the usual value stands in, and is marked as assumed; what has a default of its own is left out. */
export const unknownStep = (entry: Entry): Step => {
  const standIn = entry.default === null ? entry.stand_in : null;
  return followed(entry, { known: false, ...(standIn ? { text: standIn.text } : {}) }, `${entry.label} not known`);
};

/** The usual values stand in for all of `entries` at once, each marked as assumed. */
export const assumeStep = (entries: readonly Entry[]): Step => ({
  label: entries.length === 1 ? `${entries[0]?.label ?? ''} assumed` : `${entries.length} usual values assumed`,
  follow: true,
  edits: entries.flatMap((e) => (e.stand_in ? [{ path: pointer(e.path), known: false, text: e.stand_in.text }] : [])),
});

/** What one entry has, typed into others that are not known: the rear tyre as the front, the right side as the left. */
export const sameStep = (label: string, pairs: readonly (readonly [Entry, Entry])[]): Step => ({
  label,
  follow: true,
  edits: pairs.map(([from, to]) =>
    from.kind === 'choice'
      ? { path: pointer(to.path), value: from.text }
      : { path: pointer(to.path), text: from.text, ...(from.unsure ? { known: false } : {}) },
  ),
});

/** An entry is exact because the person says so, or no longer. */
export const exactStep = (entry: Entry, exact: boolean): Step => ({
  label: exact ? `${entry.label} exact` : `${entry.label} not exact`,
  edits: [{ path: pointer(entry.path), exact }],
});

/** How far an entry may be off; an empty text takes it away. */
export const toleranceStep = (entry: Entry, text: string, preferred?: string): Step => {
  const path = `/tolerances/${entry.path}`;
  const typed = { path, text, ...(preferred === undefined ? {} : { preferred }) };
  return { label: `± ${entry.label}`, edits: [text.trim() ? typed : { op: 'remove', path }] };
};
