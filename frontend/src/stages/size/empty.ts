/** What the force line still needs, from the measure sheet: its controls and brakes in their order, and what may stand in. */
import type { Entry, MeasureSheet, Section } from '../../api/types';

/** A control with its booster and cylinder. */
export interface Pressed {
  key: string;
  title: string;
  control: Section['control'];
  entries: Entry[];
  cylinder: Entry[];
  twin: boolean;
}
/** A brake with its rotor or drum, and its tyre. */
export interface Braked {
  key: string;
  title: string;
  drum: boolean;
  brake: Entry[];
  rotor: Entry[];
  tyre: Entry[];
}
/** Controls that press the same brakes. */
export interface Circuit {
  pressed: Pressed[];
  braked: Braked[];
}
/** One control that is built like another: what the other has and this one does not. */
export interface Same {
  label: string;
  pairs: [Entry, Entry][];
}
export interface Wanted {
  circuits: Circuit[];
  /** Of the vehicle, beside the tyres. */
  vehicle: Entry[];
  /** Entries that the line needs and that a usual value may stand in for, by the part they are of. */
  usual: { title: string; entries: Entry[] }[];
  /** All that the line needs. */
  all: Entry[];
  same: Same[];
}

const OF_ROTOR = new Set(['rotor_diameter_mm', 'drum_diameter_mm']);
const entriesOf = (section: Section) => section.groups.flatMap((g) => g.entries);
const measured = (entry: Entry) => !entry.stand_in;
export const unknown = (entry: Entry) => entry.state === 'unknown';

export function wantedOf(sheet: MeasureSheet): Wanted {
  const circuits: Circuit[] = [];
  const all = sheet.sections.flatMap((s) => entriesOf(s).filter((e) => e.line));
  const vehicle = sheet.sections.find((s) => s.kind === 'vehicle');
  const tyres = all.filter((e) => e.key === 'tyre');
  let last: Circuit | undefined;
  for (const section of sheet.sections) {
    const line = entriesOf(section).filter((e) => e.line && measured(e));
    if (section.kind === 'control') {
      if (!last || last.braked.length > 0) circuits.push((last = { pressed: [], braked: [] }));
      const { key, title, control } = section;
      last.pressed.push({ key, title, control, entries: line, cylinder: [], twin: false });
    } else if (section.kind === 'cylinder' || section.kind === 'booster') {
      const own = last?.pressed.at(-1);
      own?.cylinder.push(...line);
      if (own && section.kind === 'cylinder') own.twin = line.length > 1;
    } else if (section.kind === 'brake') {
      const count = circuits.reduce((sum, c) => sum + c.braked.length, 0);
      last?.braked.push({
        key: section.key,
        title: section.title,
        drum: line.some((e) => e.key === 'drum_diameter_mm'),
        brake: line.filter((e) => !OF_ROTOR.has(e.key)),
        rotor: line.filter((e) => OF_ROTOR.has(e.key)),
        tyre: tyres.slice(count, count + 1),
      });
    }
  }
  const own = vehicle ? entriesOf(vehicle).filter((e) => e.line && measured(e) && e.key !== 'tyre') : [];
  const usual = sheet.sections
    .map((s) => ({ title: s.title, entries: entriesOf(s).filter((e) => e.line && !measured(e)) }))
    .filter((u) => u.entries.length > 0);
  return { circuits, vehicle: own, usual, all, same: sameOf(sheet, circuits, tyres) };
}

/** The other tyres as the one that is known; one control of a pair as the other. */
function sameOf(sheet: MeasureSheet, circuits: readonly Circuit[], tyres: readonly Entry[]): Same[] {
  const found: Same[] = [];
  const known = tyres.find((t) => !unknown(t));
  const others = tyres.filter(unknown);
  if (known && others.length > 0)
    found.push({ label: 'All tyres the same', pairs: others.map((other) => [known, other]) });
  const [one, other] = circuits;
  if (!one || !other || circuits.length !== 2) return found;
  const kinds = (c: Circuit) => c.pressed.map((p) => p.control).join();
  if (kinds(one) !== kinds(other)) return found;
  // A pair of like controls: what the sheet asks of the one it asks of the other, in the same order.
  const sections = (c: Circuit) => {
    const keys = new Set([...c.pressed.map((p) => p.key), ...c.braked.map((b) => b.key)]);
    const at = sheet.sections.findIndex((s) => keys.has(s.key));
    return sheet.sections.slice(at).filter((s) => s.kind !== 'vehicle');
  };
  const theirs = sections(other);
  const mine = sections(one).slice(0, theirs.length);
  const pairs = mine.flatMap((section, n) => {
    const to = theirs[n] ? entriesOf(theirs[n]) : [];
    return entriesOf(section).flatMap((e, k): [Entry, Entry][] => {
      const same = to[k];
      return same && same.key === e.key && !unknown(e) && unknown(same) && e.kind !== 'flag' ? [[e, same]] : [];
    });
  });
  const title = (c: Circuit) => c.pressed[0]?.title ?? '';
  if (pairs.length > 0) found.push({ label: `${title(other)} the same as ${title(one).toLowerCase()}`, pairs });
  return found;
}
