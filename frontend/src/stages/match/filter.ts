/** Which of the setups that were kept are shown, and in which order: filters by what they are made of, and a sort. */
import type { Kept } from '../../api/types';

export type Column = 'push_n' | 'travel_mm' | 'grip_use' | 'left_g' | 'price';
export interface Filter {
  /** {part: its words}, none for any. */
  made: Readonly<Record<string, string>>;
  /** Only those that have a reason to be bought. */
  reasoned: boolean;
  by: Column | null;
  down: boolean;
}
export const NO_FILTER: Filter = { made: {}, reasoned: true, by: null, down: false };
export const ANY = 'any';

export function filtered(kept: readonly Kept[], filter: Filter): Kept[] {
  const rows = kept.filter(
    (row) =>
      (!filter.reasoned || row.reasons.length > 0 || row.as_it_stands) &&
      Object.entries(filter.made).every(([part, words]) => row.words[part] === words),
  );
  const { by } = filter;
  if (by === null) return rows;
  const value = (row: Kept) => row[by] ?? Number.POSITIVE_INFINITY;
  return [...rows].sort((a, b) => (filter.down ? value(b) - value(a) : value(a) - value(b)));
}

/** Parts that differ between the setups kept, with the words there are of each. */
export function partsOf(kept: readonly Kept[]): { part: string; words: string[] }[] {
  const parts = Object.keys(kept[0]?.words ?? {});
  return parts
    .map((part) => ({ part, words: [...new Set(kept.map((row) => row.words[part] ?? ''))] }))
    .filter(({ words }) => words.length > 1);
}

export const sortedBy = (filter: Filter, by: Column): Filter =>
  filter.by === by ? { ...filter, by: filter.down ? null : by, down: !filter.down } : { ...filter, by, down: false };
