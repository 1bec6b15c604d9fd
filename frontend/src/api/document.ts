/** Where things stand in a job's document: dotted paths of its setups, and what is at a path. Pure. */

export type Document = Record<string, unknown>;
export interface Plan {
  name: string;
  [more: string]: unknown;
}
export const plansOf = (document: Document): Plan[] => (document['plans'] ?? []) as Plan[];

/** Dotted path of a setup in the job: `as_found` or `plans.0`. */
export function rootOf(document: Document, setup: string): string {
  const index = plansOf(document).findIndex((p) => p.name === setup);
  return index < 0 ? 'as_found' : `plans.${index}`;
}

export function valueAt(document: unknown, path: string): unknown {
  let here: unknown = document;
  for (const part of path.split('.')) {
    if (here === null || typeof here !== 'object') return undefined;
    here = (here as Record<string, unknown>)[part];
  }
  return here;
}
