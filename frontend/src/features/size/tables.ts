/** The plots of Size as tables: the same figures, some of the samples. */
import type { Curves } from '../../api/types';
import type { FeelDot, FeelMark } from '../../charts/Feel';
import type { Point } from '../../drawings/ink';
import type { Tabled } from '../../ui/DataTable';
import { decel, kilonewtons, megapascals, millimetres, newtons, tenths } from '../../units/format';
import type { Cause } from '../../charts/TravelStair';

const EVERY = 12;
/** About a dozen places of a list, the first and the last among them. */
const some = (length: number): number[] => {
  const step = Math.max(1, Math.floor(length / EVERY));
  const places = Array.from({ length: Math.ceil(length / step) }, (_, i) => i * step);
  return places[places.length - 1] === length - 1 ? places : [...places, length - 1];
};

export const feelTable = (dots: readonly FeelDot[], marks: readonly FeelMark[]): Tabled => ({
  caption: 'Effort and travel at the stop wanted',
  head: ['setup or bore', 'push, N', 'travel, mm'],
  rows: [
    ...marks.map((m) => [m.name, newtons(m.push), millimetres(m.travel)]),
    ...dots.map((d) => [d.name, newtons(d.push), millimetres(d.travel)]),
  ],
});
export const balanceTable = (curves: Curves): Tabled => ({
  caption: 'Front and rear brake force over the push',
  head: ['push, N', 'front, kN', 'rear, kN', 'g'],
  rows: some(curves.push_n.length).map((i) => [
    newtons(curves.push_n[i] ?? 0),
    kilonewtons(curves.front_n[i] ?? 0),
    kilonewtons(curves.rear_n[i] ?? 0),
    decel(curves.decel_g[i] ?? 0),
  ]),
});
export const travelTable = (causes: readonly Cause[], total: number): Tabled => ({
  caption: 'Pedal travel by cause',
  head: ['where it goes', 'mm'],
  rows: [...causes.map((c) => [c.name, tenths(c.mm)]), ['in all', tenths(total)]],
});
export const valveTable = (lines: readonly { name: string; points: readonly Point[] }[]): Tabled => ({
  caption: 'Pressure through the valves',
  head: ['line', 'from the cylinder, MPa', 'to the brakes, MPa'],
  rows: lines.flatMap((l) =>
    some(l.points.length).map((i) => [l.name, megapascals(l.points[i]?.[0] ?? 0), megapascals(l.points[i]?.[1] ?? 0)]),
  ),
});
export const adhesionTable = (curves: Curves): Tabled => ({
  caption: 'Adhesion used by each axle',
  head: ['g', 'front', 'rear'],
  rows: some(curves.decel_g.length).map((i) => [
    decel(curves.decel_g[i] ?? 0),
    decel(curves.adhesion_front[i] ?? 0),
    decel(curves.adhesion_rear[i] ?? 0),
  ]),
});
export const ratioTable = (points: readonly Point[]): Tabled => ({
  caption: 'Pedal ratio through the stroke',
  head: ['travel, mm', 'ratio'],
  rows: some(points.length).map((i) => [millimetres(points[i]?.[0] ?? 0), decel(points[i]?.[1] ?? 0)]),
});
export const heatTable = (
  rows: readonly { name: string; starts: readonly number[]; peaks: readonly number[] }[],
): Tabled => ({
  caption: 'Rotor temperatures in the series',
  head: ['slow-down', ...rows.flatMap((r) => [`${r.name}, begins °C`, `${r.name}, peak °C`])],
  rows: Array.from({ length: Math.max(0, ...rows.map((r) => r.peaks.length)) }, (_, i) => [
    String(i + 1),
    ...rows.flatMap((r) => [newtons(r.starts[i] ?? 0), newtons(r.peaks[i] ?? 0)]),
  ]),
});
