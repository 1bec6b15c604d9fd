/** Balloons of marks that lie close are parted, so that each number is read; a leader goes back to the mark. */
import type { Point } from '../drawings/ink';

interface Frame {
  left: number;
  right: number;
  top: number;
  bottom: number;
}
const ROUNDS = 60;

/** Places for the balloons of some marks, none nearer to another than `least` where the frame has room: near their marks, within the frame. */
export function parted(marks: readonly Point[], least: number, { left, right, top, bottom }: Frame): Point[] {
  const at = marks.map(([x, y]): [number, number] => [x, y]);
  for (let round = 0; round < ROUNDS; round += 1) {
    let moved = false;
    for (let i = 0; i < at.length; i += 1)
      for (let j = i + 1; j < at.length; j += 1) {
        const [a, b] = [at[i], at[j]] as [[number, number], [number, number]];
        const away = Math.hypot(b[0] - a[0], b[1] - a[1]);
        if (away >= least - 1e-6) continue;
        moved = true;
        // Marks on one place part along a direction of their own, else along the line between them.
        const turn = i + j;
        const [ux, uy] = away > 1e-6 ? [(b[0] - a[0]) / away, (b[1] - a[1]) / away] : [Math.cos(turn), Math.sin(turn)];
        const half = (least - away) / 2 + 0.01;
        a[0] -= ux * half;
        a[1] -= uy * half;
        b[0] += ux * half;
        b[1] += uy * half;
      }
    for (const p of at) {
      p[0] = Math.min(right, Math.max(left, p[0]));
      p[1] = Math.min(bottom, Math.max(top, p[1]));
    }
    if (!moved) break;
  }
  return at;
}
