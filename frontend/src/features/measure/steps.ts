/** The edits of Measure: an entry and what hangs on it, as one step. Pure: document in, edits out. */
import type { EditIn } from '../../api/client';
import { valueAt, type Document } from '../../api/document';
import type { Step } from '../../api/jobs';
import type { Entry, SheetEdit } from '../../api/types';

const FOUND = 'as_found.';
const same = (a: unknown, b: unknown) => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

/** What is measured as found also holds for the plans that had the same there: they were copied from it. */
export function follow(document: Document, edits: readonly EditIn[]): EditIn[] {
  const plans = (document['plans'] ?? []) as unknown[];
  return edits.flatMap((edit) => {
    if (!edit.path.startsWith(FOUND)) return [edit];
    const below = edit.path.slice(FOUND.length);
    const old = valueAt(document, edit.path);
    const also = plans
      .map((plan, i) => ({ i, own: valueAt(plan, below) }))
      .filter(({ own }) => same(own, old))
      .map(({ i }) => ({ ...edit, path: `plans.${i}.${below}` }));
    return [edit, ...also];
  });
}

const assumedOf = (document: Document) => (document['assumed'] ?? []) as string[];
/** The list of entries that a person said are not known, with one put in or taken out; nothing when it stays. */
function unsure(document: Document, path: string, is: boolean): EditIn[] {
  const now = assumedOf(document);
  if (now.includes(path) === is) return [];
  return [{ path: 'assumed', value: is ? [...now, path] : now.filter((p) => p !== path) }];
}

export const typedStep = (document: Document, entry: Entry, text: string, preferred?: string): Step => ({
  label: entry.label,
  edits: [...follow(document, [{ path: entry.path, text, preferred }]), ...unsure(document, entry.path, false)],
});

export const valueStep = (document: Document, entry: Entry, value: unknown): Step => ({
  label: entry.label,
  edits: follow(document, [value === undefined ? { path: entry.path } : { path: entry.path, value }]),
});

/** "Don't know": the usual value stands in, and is marked as assumed. */
export const unknownStep = (document: Document, entry: Entry): Step => ({
  label: `${entry.label} not known`,
  edits: [
    ...follow(document, [
      entry.default === null && entry.stand_in !== null
        ? { path: entry.path, text: entry.stand_in.text }
        : { path: entry.path },
    ]),
    ...unsure(document, entry.path, true),
  ],
});

export const editsStep = (document: Document, label: string, edits: readonly SheetEdit[]): Step => ({
  label,
  edits: follow(
    document,
    edits.map((e) => (e.value === null || e.value === undefined ? { path: e.path } : { path: e.path, value: e.value })),
  ),
});

/** How far an entry may be off; an empty text takes it away. */
export const toleranceStep = (entry: Entry, text: string, preferred?: string): Step => {
  const path = `tolerances.[${entry.path}]`;
  return { label: `± ${entry.label}`, edits: [text.trim() ? { path, text, preferred } : { path }] };
};
