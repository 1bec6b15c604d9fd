/** A place along a stop's line: looked up between the server's places. */
import type { StopView } from '../../api/types';

export interface Place {
  way: number;
  speed: number;
  time: number;
  decel: number;
}
export function placeAt({ line }: StopView, way: number): Place {
  const n = line.way_m.findIndex((m) => m >= way);
  const after = n < 0 ? line.way_m.length - 1 : Math.max(1, n);
  const [from = 0, to = 0] = [line.way_m[after - 1], line.way_m[after]];
  const share = to > from ? Math.min(1, Math.max(0, (way - from) / (to - from))) : 0;
  const between = (own: readonly number[]) => {
    const [a = 0, b = 0] = [own[after - 1], own[after]];
    return a + (b - a) * share;
  };
  return { way, speed: between(line.speed_kmh), time: between(line.time_s), decel: between(line.decel_g) };
}
/** Where the ring stands before it is moved: at half the speed. */
export function halfway({ line }: StopView): number {
  const half = (line.speed_kmh[0] ?? 0) / 2;
  const n = line.speed_kmh.findIndex((v) => v <= half);
  const [v0 = 0, v1 = 0] = [line.speed_kmh[n - 1], line.speed_kmh[n]];
  const [m0 = 0, m1 = 0] = [line.way_m[n - 1], line.way_m[n]];
  return n < 1 ? 0 : m0 + (m1 - m0) * (v0 > v1 ? (v0 - half) / (v0 - v1) : 0);
}
