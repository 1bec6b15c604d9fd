/** The edits that make, rename and take out plans: whole documents in, edits out. */
import { plansOf, rootOf, type Document, type Plan } from '../api/document';
import type { EditIn } from '../api/types';

/** "plan A", "plan B" …: the first letter that is free. */
export function freeName(document: Document): string {
  const taken = new Set(plansOf(document).map((p) => p.name));
  for (const letter of 'ABCDEFGHIJKLMNOPQRSTUVWXYZ') if (!taken.has(`plan ${letter}`)) return `plan ${letter}`;
  let n = taken.size + 1;
  while (taken.has(`plan ${n}`)) n += 1;
  return `plan ${n}`;
}

const moved = (path: string, from: string, to: string) =>
  path === from || path.startsWith(`${from}.`) ? `${to}${path.slice(from.length)}` : null;

/** A new plan that starts as a copy of a setup, with what is known of its entries. */
export function copyEdits(document: Document, from: string, name: string): EditIn[] {
  const plans = plansOf(document);
  const source = (plans.find((p) => p.name === from) ?? document['as_found']) as Plan;
  const own = rootOf(document, from);
  const next = `plans.${plans.length}`;
  const copy: Plan = { ...structuredClone(source), name };
  delete copy['note'];
  return [
    { path: 'plans', value: [...plans, copy] },
    ...aboutEdits(document, (path) => {
      const to = moved(path, own, next);
      return to === null ? [path] : [path, to];
    }),
  ];
}

/** Take a plan out; what is known of the entries of those behind it moves up. */
export function removeEdits(document: Document, name: string): EditIn[] {
  const plans = plansOf(document);
  const gone = plans.findIndex((p) => p.name === name);
  return [
    { path: 'plans', value: plans.filter((_, i) => i !== gone) },
    ...aboutEdits(document, (path) => {
      const found = /^plans\.(\d+)(\..*)?$/.exec(path);
      if (!found) return [path];
      const n = Number(found[1]);
      if (n === gone) return [];
      return [n > gone ? `plans.${n - 1}${found[2] ?? ''}` : path];
    }),
  ];
}

export const renameEdits = (document: Document, name: string, to: string): EditIn[] => [
  { path: `${rootOf(document, name)}.name`, value: to },
];

/** Tolerances and what is not known stand by path: they follow their plan. */
function aboutEdits(document: Document, where: (path: string) => string[]): EditIn[] {
  const edits: EditIn[] = [];
  const assumed = document['assumed'] as string[] | undefined;
  if (assumed) edits.push({ path: 'assumed', value: assumed.flatMap(where) });
  const tolerances = document['tolerances'] as Record<string, string> | undefined;
  if (tolerances) {
    const value = Object.fromEntries(
      Object.entries(tolerances).flatMap(([path, text]) => where(path).map((to) => [to, text])),
    );
    edits.push({ path: 'tolerances', value });
  }
  return edits;
}
