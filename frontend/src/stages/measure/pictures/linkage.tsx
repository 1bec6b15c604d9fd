/** Pedal pin, rod and bore in the plane, to scale: where the bore's axis lies and how the rod stands at rest. */
import { arc, Arrow, Line, Path, poly, polar, r2, Ring, type Point } from '../../../drawings/ink';
import type { Drawn } from '../Picture';

const rad = (d: number) => (d * Math.PI) / 180;
const WIDE = 604;
const HIGH = 470;
/** The room that the fields leave to the drawing. */
const ROOM = { left: 150, right: 452, top: 70, bottom: 372 };

export interface LinkageNumbers {
  pin: number | null;
  rest: number;
  /** The way the pin turns when pressed. */
  sense: number;
  point: Point;
  direction: number;
  rod: number;
  here: string | null;
}

/** Pin, socket and a point further into the bore, in mm from the pivot; the socket null where the rod is too short. */
function places(n: LinkageNumbers) {
  const b = n.pin ?? 60;
  const [c, s] = [Math.cos(rad(n.direction)), Math.sin(rad(n.direction))];
  const pin: Point = [b * Math.cos(rad(n.rest)), b * Math.sin(rad(n.rest))];
  const [x, y] = [pin[0] - n.point[0], pin[1] - n.point[1]];
  const across = y * c - x * s;
  const reach = n.rod ** 2 - across ** 2;
  const along = x * c + y * s + (reach >= 0 ? Math.sqrt(reach) : 0);
  const on = (far: number): Point => [n.point[0] + far * c, n.point[1] + far * s];
  return { b, pin, socket: reach >= 0 ? on(along) : null, mouth: on(along), end: on(along + 70) };
}

export function linkagePicture(n: LinkageNumbers): Drawn {
  const at = places(n);
  const all: Point[] = [[0, 0], at.pin, at.mouth, at.end, n.point];
  const [xs, ys] = [all.map((p) => p[0]), all.map((p) => p[1])];
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const k = Math.min((ROOM.right - ROOM.left) / (x1 - x0 || 1), (ROOM.bottom - ROOM.top) / (y1 - y0 || 1), 3);
  const mx = (ROOM.left + ROOM.right) / 2 - ((x0 + x1) / 2) * k;
  const my = (ROOM.top + ROOM.bottom) / 2 + ((y0 + y1) / 2) * k;
  const px = (p: Point): Point => [mx + p[0] * k, my - p[1] * k];
  const [pivot, pin, mouth, end, point] = [px([0, 0]), px(at.pin), px(at.mouth), px(at.end), px(n.point)];
  const r = at.b * k;
  const hot = (key: string) => (n.here === key ? 'plan-thin' : 'thin');
  const turn = -n.direction;
  const aside = (p: Point, by: number, d: number): Point => [
    p[0] + by * Math.cos(rad(turn)) - d * Math.sin(rad(turn)),
    p[1] + by * Math.sin(rad(turn)) + d * Math.cos(rad(turn)),
  ];
  const wall = (d: number): Point[] => [aside(mouth, -14, d), aside(end, 0, d)];
  const swung = -(n.rest + n.sense * 28);
  const tip = polar(pivot[0], pivot[1], r, swung);
  const beam = Math.max(40, r * 0.5);
  const inner = polar(pivot[0], pivot[1], beam, -n.rest * 0.8);
  const svg = (
    <>
      <Line a={[pivot[0] - 20, pivot[1]]} b={[Math.max(point[0], pivot[0] + r) + 24, pivot[1]]} as="centre" />
      <Line a={aside(point, -30, 0)} b={aside(end, 26, 0)} as="centre" />
      <Path d={poly(wall(-12))} as="edge" />
      <Path d={poly(wall(12))} as="edge" />
      <Path
        d={poly([aside(mouth, 4, -11), aside(mouth, 4, 11), aside(mouth, 34, 11), aside(mouth, 34, -11)]) + 'Z'}
        as="section"
      />
      <Path d={poly([pivot, pin])} as="heavy" />
      {at.socket && <Path d={poly([pin, mouth])} as="edge" />}
      <Path d={arc(pivot[0], pivot[1], r, -n.rest, swung)} as={hot('linkage.sense')} />
      <Arrow x={tip[0]} y={tip[1]} turn={swung - n.sense * 90} as="arrow" long={11} half={2.2} />
      <Path d={arc(pivot[0], pivot[1], beam, 0, -n.rest)} as={hot('linkage.rest_angle_deg')} />
      <Line a={[point[0], pivot[1]]} b={point} as={hot('linkage.bore_point_mm.1')} />
      <Line a={[pivot[0], pivot[1] + 4]} b={[point[0], pivot[1] + 4]} as={hot('linkage.bore_point_mm.0')} />
      <Ring x={point[0]} y={point[1]} r={3} as="solid" />
      {[pivot, pin, mouth].map((p, i) => (
        <Ring key={i} x={p[0]} y={p[1]} r={i === 0 ? 6 : 4.5} as="edge paper" />
      ))}
      <Path d={`M132,58L${r2(inner[0])},${r2(inner[1])}`} as={hot('linkage.rest_angle_deg')} />
      <Path d={`M132,410L${r2((pin[0] + mouth[0]) / 2)},${r2((pin[1] + mouth[1]) / 2)}`} as={hot('linkage.rod_mm')} />
      <Path d={`M472,58L${r2(point[0])},${r2((pivot[1] + point[1]) / 2)}`} as={hot('linkage.bore_point_mm.1')} />
      <Path d={`M330,36L${r2((pivot[0] + point[0]) / 2)},${r2(pivot[1] + 2)}`} as={hot('linkage.bore_point_mm.0')} />
      <Path d={`M472,410L${r2(end[0])},${r2(end[1])}`} as={hot('linkage.bore_direction_deg')} />
    </>
  );
  return {
    width: WIDE,
    height: HIGH,
    svg,
    slots: {
      'linkage.rest_angle_deg': { x: 0, y: 26, w: 132 },
      'linkage.bore_point_mm.0': { x: 250, y: -8, w: 140 },
      'linkage.bore_point_mm.1': { x: 472, y: 26, w: 132 },
      'linkage.rod_mm': { x: 0, y: 380, w: 132 },
      'linkage.sense': { x: 200, y: 400, w: 200 },
      'linkage.bore_direction_deg': { x: 472, y: 380, w: 132 },
    },
    description: at.socket
      ? 'Pivot, pin, rod and the bore of the cylinder from the side, at rest.'
      : 'Pivot, pin and the bore of the cylinder from the side; the rod is too short to reach the bore.',
  };
}
