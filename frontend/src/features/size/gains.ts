/** What each change bought: the gain of every link, from the core's figures of the two pushes that are drawn. */
import type { Solved } from '../../api/types';
import type { Figures, StationFigures } from './figures';
import type { FoundLine } from './line/geometry';

export type BandSide = 'front' | 'rear' | 'whole';
export interface Gain {
  /** Link whose shoulder it is: 1 pedal, 2 booster, 3 cylinder, 4 valve, 5 brakes, 6 rotors, 7 tyres. */
  link: number;
  name: string;
  gain: number;
}

const ratio = (a: number, b: number) => (b > 0 ? a / b : 0);

/** The force that presses pads or shoes: the clamp, or of a drum what turned into its torque. */
function pressing(solved: Solved, name: string, own: StationFigures): number {
  const station = solved.parts.stations.find((s) => s.name === name);
  if (own.clamp !== null) return own.clamp;
  const drum = station?.drum;
  return drum ? (own.torque * 1000) / (drum.shoe_factor * (drum.drum_diameter_mm / 2)) : 0;
}

interface Links {
  rod: number;
  out: number;
  inlet: number;
  outlet: number;
  press: number;
  torque: number;
  force: number;
}
function linksOf(solved: Solved, now: Figures, side: BandSide): Links | null {
  const stations = solved.parts.stations.filter((s) => side === 'whole' || s.axle === side);
  const first = stations[0];
  if (!first || now.push <= 0) return null;
  const own = stations.map((s) => ({ s, at: now.stations[s.name] }));
  if (own.some((o) => !o.at)) return null;
  const sum = (of: (s: (typeof stations)[number], at: StationFigures) => number) =>
    own.reduce((total, o) => total + (o.at ? of(o.s, o.at) : 0), 0);
  const each = stations.length;
  return {
    rod: now.rod / now.push,
    out: ratio(now.out, now.rod),
    inlet: ratio(sum((_, at) => at.inlet) / each, now.out),
    outlet: ratio(
      sum((_, at) => at.outlet),
      sum((_, at) => at.inlet),
    ),
    press: ratio(
      sum((s, at) => pressing(solved, s.name, at)),
      sum((_, at) => at.outlet),
    ),
    torque: ratio(
      sum((_, at) => at.torque),
      sum((s, at) => pressing(solved, s.name, at)),
    ),
    force: ratio(
      sum((s, at) => (at.torque * s.wheels * 1000) / s.rolling_radius_mm),
      sum((_, at) => at.torque),
    ),
  };
}

const NAMES: readonly (readonly [keyof Links, number, string])[] = [
  ['rod', 1, 'pin'],
  ['out', 2, 'booster'],
  ['inlet', 3, 'bore'],
  ['outlet', 4, 'valve'],
  ['press', 5, 'pistons'],
  ['torque', 6, 'rotors'],
  ['force', 7, 'tyres'],
];
const SAME = 0.005;

/** The gains that are not one, in the order of the links; none where a link cannot be compared. */
export function gainsOf(solved: Solved, now: Figures, found: FoundLine, side: BandSide): Gain[] | null {
  const mine = linksOf(solved, now, side);
  const theirs = linksOf(found.solved, found.now, side);
  if (!mine || !theirs) return null;
  if (NAMES.some(([key]) => theirs[key] <= 0 || mine[key] <= 0)) return null;
  const gain = (key: keyof Links) => mine[key] / theirs[key];
  // A drum's shoes and a disc's pads are not pressed alike: what one became of the other is one gain.
  const kinds = (line: FoundLine['solved']) =>
    line.parts.stations.filter((s) => side === 'whole' || s.axle === side).map((s) => (s.disc ? 'disc' : 'drum'));
  const other = kinds(solved).join() !== kinds(found.solved).join();
  const gains: Gain[] = NAMES.flatMap(([key, link, name]) => {
    if (other && key === 'torque') return [];
    if (other && key === 'press') return [{ link, name: 'brakes', gain: gain('press') * gain('torque') }];
    return [{ link, name, gain: gain(key) }];
  });
  return gains.filter((g) => Math.abs(g.gain - 1) > SAME);
}

/** The side that changed most, for the first look. */
export function mostChanged(solved: Solved, now: Figures, found: FoundLine): BandSide {
  const change = (side: BandSide) => {
    const gains = gainsOf(solved, now, found, side);
    return gains === null ? -1 : Math.abs(Math.log(gains.reduce((p, g) => p * g.gain, 1)));
  };
  return change('rear') > change('front') ? 'rear' : 'front';
}
