/** The plots of Size as tables: the same figures, some of the samples. */
import type { Curves } from '../../api/types';
import type { FeelDot, FeelMark } from '../../charts/Feel';
import type { Point } from '../../drawings/ink';
import type { Tabled } from '../../ui/DataTable';
import { decel } from '../../units/format';
import { force, great, heatOf, lengthOf, pressure } from '../../units/display';
import type { Cause } from '../../charts/TravelStair';

const EVERY = 12;
/** About a dozen places of a list, the first and the last among them. */
const samplePlaces = (length: number): number[] => {
  const step = Math.max(1, Math.floor(length / EVERY));
  const places = Array.from({ length: Math.ceil(length / step) }, (_, i) => i * step);
  return places[places.length - 1] === length - 1 ? places : [...places, length - 1];
};

export const feelTable = (dots: readonly FeelDot[], marks: readonly FeelMark[]): Tabled => ({
  caption: 'Effort and travel at the stop wanted',
  head: ['setup or bore', `push, ${force(0).unit}`, `travel, ${lengthOf(0).unit}`],
  rows: [
    ...marks.map((m) => [m.name, force(m.push).v, lengthOf(m.travel).v]),
    ...dots.map((d) => [d.name, force(d.push).v, lengthOf(d.travel).v]),
  ],
});
export const balanceTable = (curves: Curves): Tabled => ({
  caption: 'Front and rear brake force over the push',
  head: [`push, ${force(0).unit}`, `front, ${great(0).unit}`, `rear, ${great(0).unit}`, 'g'],
  rows: samplePlaces(curves.push_n.length).map((i) => [
    force(curves.push_n[i] ?? 0).v,
    great(curves.front_n[i] ?? 0).v,
    great(curves.rear_n[i] ?? 0).v,
    decel(curves.decel_g[i] ?? 0),
  ]),
});
export const travelTable = (causes: readonly Cause[], total: number): Tabled => ({
  caption: 'Pedal travel by cause',
  head: ['where it goes', 'mm'],
  rows: [...causes.map((c) => [c.name, lengthOf(c.mm, 1).v]), ['in all', lengthOf(total, 1).v]],
});
export const valveTable = (lines: readonly { name: string; points: readonly Point[] }[]): Tabled => ({
  caption: 'Pressure through the valves',
  head: ['line', `from the cylinder, ${pressure(0).unit}`, `to the brakes, ${pressure(0).unit}`],
  rows: lines.flatMap((l) =>
    samplePlaces(l.points.length).map((i) => [
      l.name,
      pressure(l.points[i]?.[0] ?? 0).v,
      pressure(l.points[i]?.[1] ?? 0).v,
    ]),
  ),
});
export const adhesionTable = (curves: Curves): Tabled => ({
  caption: 'Adhesion used by each axle',
  head: ['g', 'front', 'rear'],
  rows: samplePlaces(curves.decel_g.length).map((i) => [
    decel(curves.decel_g[i] ?? 0),
    decel(curves.adhesion_front[i] ?? 0),
    decel(curves.adhesion_rear[i] ?? 0),
  ]),
});
export const ratioTable = (points: readonly Point[]): Tabled => ({
  caption: 'Pedal ratio through the stroke',
  head: [`travel, ${lengthOf(0).unit}`, 'ratio'],
  rows: samplePlaces(points.length).map((i) => [lengthOf(points[i]?.[0] ?? 0).v, decel(points[i]?.[1] ?? 0)]),
});
const degrees = (c: number | undefined) => heatOf(c ?? 0).v;
export const heatTable = (
  rows: readonly { name: string; starts: readonly number[]; peaks: readonly number[] }[],
): Tabled => ({
  caption: 'Rotor temperatures in the series',
  head: [
    'slow-down',
    ...rows.flatMap((r) => [`${r.name}, begins ${heatOf(0).unit}`, `${r.name}, peak ${heatOf(0).unit}`]),
  ],
  rows: Array.from({ length: Math.max(0, ...rows.map((r) => r.peaks.length)) }, (_, i) => [
    String(i + 1),
    ...rows.flatMap((r) => [degrees(r.starts[i]), degrees(r.peaks[i])]),
  ]),
});
