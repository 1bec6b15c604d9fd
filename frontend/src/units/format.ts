/** Numbers as a screen writes them. Formatting only: what is computed comes from the core. */

export const millimetres = (mm: number) => Math.round(mm).toString();
export const tenths = (mm: number) => mm.toFixed(1);
export const decel = (g: number) => g.toFixed(2);
export const lock = (g: number) => g.toFixed(3);
export const percent = (share: number) => `${Math.round(share * 100)} %`;
/** A dimension without needless zeros: 20.64, 292, 38.1. */
export const size = (mm: number) => parseFloat(mm.toFixed(2)).toString();

export const counted = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;
/** A large number with its thousands apart: 19 000. */
export const spaced = (n: number) => n.toLocaleString('en').replaceAll(',', ' ');
export const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** A stored moment as the machine's own calendar writes it. */
export const moment = (at: string) =>
  new Date(at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' });

/** Equal entries of a list together, as people write them: 2 × 38.1 mm. */
export function grouped(entries: readonly (string | number)[]): string {
  const groups: { text: string; n: number }[] = [];
  for (const entry of entries) {
    const text = typeof entry === 'number' ? `${size(entry)} mm` : entry;
    const last = groups[groups.length - 1];
    if (last?.text === text) last.n += 1;
    else groups.push({ text, n: 1 });
  }
  return groups.map(({ text, n }) => (n > 1 ? `${n} × ${text}` : text)).join(' + ');
}

/** A stored entry as it was typed; a bare number is shown with its unit. */
export const asTyped = (entry: unknown, unit: string): string =>
  typeof entry === 'number' ? `${entry}${unit ? ` ${unit}` : ''}` : typeof entry === 'string' ? entry : '';
