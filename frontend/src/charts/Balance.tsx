/** Rear against front brake force: the ideal sharing, the lock lines, and the path each setup takes as the push grows. */
import { memo, useId, useState, type PointerEvent } from 'react';
import type { Balance as Tyres } from '../api/types';
import { Arrow, Box, Line, Path, poly, Ring, Tag, Words, type Point } from '../drawings/ink';
import { useCoalesced, type Take } from '../ui/useCoalesced';
import { great, perNewtonGreat, pressure, spoken, written } from '../units/display';

export interface BalancePath {
  name: string;
  kind: 'plan' | 'found' | 'other';
  /** Front and rear force in N, rising with the push. */
  points: readonly Point[];
  lock: { front: number; rear: number; decel: number } | null;
}
interface BalanceProps {
  width: number;
  height: number;
  tyres: Tyres;
  paths: readonly BalancePath[];
  at: { front: number; rear: number; name: string };
  description: string;
  knee: KneeHandle | null;
  onKnee: Take;
}
/** What the valve's knee is dragged along, in N and kPa. */
export interface KneeHandle {
  points: readonly { front: number; rear: number; kpa: number }[];
  kpa: number;
  present: boolean;
}

const steps = (most: number) => {
  const power = 10 ** Math.max(0, Math.floor(Math.log10(most / 8)));
  const step = ([1, 2, 5, 10].find((s) => s * power * 8 >= most) ?? 10) * power;
  return Array.from({ length: Math.floor(most / step) + 1 }, (_, i) => i * step);
};

/** The path only as far as its own first lock. */
function upToLock(path: BalancePath): Point[] {
  if (!path.lock) return [...path.points];
  const { front, rear } = path.lock;
  return [...path.points.filter(([f, r]) => f + r < front + rear), [front, rear]];
}

interface PlotProps extends Pick<BalanceProps, 'width' | 'height' | 'tyres' | 'paths'> {
  mostF: number;
  mostR: number;
  /** Whether the push drawn is past the plan's own first lock. */
  beyond: boolean;
}
/** What stands still while the push is scrubbed: scales, tyres, paths and locks. */
const Plot = memo(function Plot({ width, height, tyres, paths, mostF, mostR, beyond }: PlotProps) {
  const clip = useId();
  const x0 = 30;
  const x1 = width - 4;
  const y0 = height - 32;
  const y1 = 6;
  const k = perNewtonGreat();
  const [cornerF = 0, cornerR = 0] = tyres.corner_n.map((n) => n * k);
  const [zeroF = 0] = tyres.front_lock_n.map((n) => n * k);
  const rearStart = (tyres.rear_lock_n[1] ?? 0) * k;
  const X = (b: number) => x0 + (b / mostF) * (x1 - x0);
  const Y = (b: number) => y0 - (b / mostR) * (y0 - y1);
  const W = tyres.weight_n * k;
  const on = ([f, r]: Point): Point => [X(f * k), Y(r * k)];
  const decels = [0.2, 0.4, 0.6].filter((z) => z < tyres.grip_limit_g);
  const ideal = tyres.ideal_n.map(([f = 0, r = 0]) => on([f, r]));
  const locked =
    `M${X(zeroF)},${Y(0)}L${X(cornerF)},${Y(cornerR)}L${X(0)},${Y(rearStart)}` +
    `L${X(0)},${Y(mostR * 2)}L${X(mostF * 2)},${Y(mostR * 2)}L${X(mostF * 2)},${Y(0)}Z`;
  // Where a lock stands in that corner, the line goes without its words.
  const crowded = paths.some(({ lock }) => {
    const [x, y] = lock ? on([lock.front, lock.rear]) : [0, 0];
    return x > x1 - 48 && y < y1 + 36;
  });
  // The front's words stand where no mark of a lock does.
  const low = paths.some(({ lock }) => {
    const [x, y] = lock ? on([lock.front, lock.rear]) : [0, 0];
    return x > x1 - 160 && Math.abs(y - Y(cornerR * 0.3)) < 22;
  });
  const middle = ideal[Math.floor(ideal.length * 0.42)] ?? [0, 0];
  return (
    <>
      <clipPath id={clip}>
        <rect x={x0} y={y1} width={x1 - x0} height={y0 - y1} />
      </clipPath>
      <g clipPath={`url(#${clip})`}>
        <Path d={locked} as="ground" />
        {decels.map((z) => (
          <Line key={z} a={[X(0), Y(z * W)]} b={[X(z * W), Y(0)]} as="scale-line" />
        ))}
        <Path d={poly(ideal)} as="thin" />
        <Line a={[X(zeroF), Y(0)]} b={[X(cornerF), Y(cornerR)]} as="heavy" />
        <Line a={[X(0), Y(rearStart)]} b={[X(cornerF), Y(cornerR)]} as="heavy" />
        {paths.map((path) => (
          <Path
            key={path.name}
            d={poly(upToLock(path).map(on))}
            as={path.kind === 'plan' ? 'plan-line' : path.kind === 'found' ? 'found' : 'other-plan'}
          />
        ))}
      </g>
      <Line a={[x0, y0]} b={[x1, y0]} as="edge" />
      <Line a={[x0, y1]} b={[x0, y0]} as="edge" />
      {steps(mostF).map((b) => (
        <g key={b}>
          <Line a={[X(b), y0]} b={[X(b), y0 + 4]} />
          <Words x={X(b)} y={y0 + 16} at="middle">
            {b}
          </Words>
        </g>
      ))}
      {steps(mostR)
        .filter((b) => b > 0 && Y(b) > y1 + 18)
        .map((b) => (
          <g key={b}>
            <Line a={[x0 - 4, Y(b)]} b={[x0, Y(b)]} />
            <Words x={x0 - 7} y={Y(b) + 4} at="end">
              {b}
            </Words>
          </g>
        ))}
      <Words x={x1} y={y0 + 30} as="label-quiet" at="end">
        {`front, ${great(0).unit}`}
      </Words>
      <Words x={x0 - 7} y={y1 + 9} as="label-quiet" at="end">
        rear
      </Words>
      {!crowded &&
        (width < 320 ? ['rear', 'locked'] : ['rear locked']).map((words, i) => (
          <Tag key={words} x={x1 - 3} y={y1 + 14 + i * 15} at="end">
            {words}
          </Tag>
        ))}
      <Tag x={x1 - 3} y={Y(cornerR * (low ? 0.65 : 0.3))} at="end">
        front locked
      </Tag>
      {decels.map((z) => (
        <Tag key={z} x={X(z * W * 0.9)} y={Y(z * W * 0.1) + 4} as="label-quiet" at="middle">
          {`${z} g`}
        </Tag>
      ))}
      <Tag x={middle[0] - 8} y={middle[1] - 3} at="end">
        ideal
      </Tag>
      {paths.map((path) => {
        if (!path.lock || path.kind !== 'other') return null;
        const [x, y] = on([path.lock.front, path.lock.rear]);
        const narrow = x > x1 - 64;
        return (
          <g key={path.name}>
            <Box x={x - 5} y={y - 5} w={10} h={10} as="other-mark" />
            <Tag x={x + (narrow ? 6 : 10)} y={narrow ? y + 18 : y - 4} as="label-strong">
              {narrow ? path.name : `${path.name} ${path.lock.decel.toFixed(3)} g`}
            </Tag>
          </g>
        );
      })}
      {paths.map((path) => {
        if (!path.lock || path.kind !== 'plan') return null;
        const [x, y] = on([path.lock.front, path.lock.rear]);
        const left = x > x1 - 64;
        return (
          <g key={path.name}>
            <Path d={`M${x},${y - 5}L${x + 5},${y + 4}L${x - 5},${y + 4}Z`} as="edge solid" />
            <Tag
              x={left ? x - 8 : x + 9}
              y={left ? y - 8 : beyond ? y + 18 : y + 5}
              as="label-plan"
              at={left ? 'end' : 'start'}
            >
              {`${path.lock.decel.toFixed(3)} g`}
            </Tag>
          </g>
        );
      })}
      <Arrow x={x1 + 2} y={y0} turn={0} />
    </>
  );
});

export function Balance({ width, height, tyres, paths, at, description, knee, onKnee }: BalanceProps) {
  const k = perNewtonGreat();
  const [cornerF = 0, cornerR = 0] = tyres.corner_n.map((n) => n * k);
  const zeroF = (tyres.front_lock_n[0] ?? 0) * k;
  const rearStart = (tyres.rear_lock_n[1] ?? 0) * k;
  const mostF = Math.max(cornerF, zeroF, at.front * k) * 1.2;
  const mostR = Math.max(cornerR, rearStart * 0.92, at.rear * k * 1.05) * 1.06;
  const x = 30 + ((at.front * k) / mostF) * (width - 34);
  const y = height - 32 - ((at.rear * k) / mostR) * (height - 38);
  const own = paths.find((path) => path.kind === 'plan')?.lock;
  const beyond = !!own && at.front + at.rear > own.front + own.rear;
  const aside = !beyond ? 1 : x < width - 30 ? 11 : -11; // past its lock the name stands clear of the lock's own
  return (
    <div style={{ position: 'relative', width, height }}>
      <svg width={width} height={height} role="img" aria-label={description}>
        <Plot {...{ width, height, tyres, paths, mostF, mostR, beyond }} />
        <Ring x={x} y={y} r={6} as="plan-area" />
        <Tag
          x={x + aside}
          y={y + (beyond ? 5 : 21)}
          as="label-plan"
          at={beyond ? (aside > 0 ? 'start' : 'end') : 'middle'}
        >
          {at.name}
        </Tag>
      </svg>
      {knee && (
        <svg width={width} height={height} className="over">
          <Knee
            knee={knee}
            onKnee={onKnee}
            X={(n) => 30 + ((n * k) / mostF) * (width - 34)}
            Y={(n) => height - 32 - ((n * k) / mostR) * (height - 38)}
          />
        </svg>
      )}
    </div>
  );
}

interface KneeProps {
  knee: KneeHandle;
  onKnee: Take;
  X: (newtons: number) => number;
  Y: (newtons: number) => number;
}
const KNEE_STEP = 50;
const LEAST = 200;
/** The ring that sets the valve's knee: dragged along the path, or stepped by keys. */
function Knee({ knee, onKnee, X, Y }: KneeProps) {
  const [dragged, setDragged] = useState<number | null>(null);
  const { moved, move } = useCoalesced(knee.kpa, onKnee);
  const { points } = knee;
  const first = points[0];
  const last = points[points.length - 1];
  if (!first || !last) return null;
  const at = dragged ?? moved;
  const kpa = at ?? knee.kpa;
  // Straight between its ends, and on beyond: below a knee the path is straight.
  const share = (kpa - first.kpa) / Math.max(1, last.kpa - first.kpa);
  const x = X(first.front + share * (last.front - first.front));
  const y = Y(first.rear + share * (last.rear - first.rear));
  const held = (v: number) => Math.max(LEAST, Math.round(v / 10) * 10);
  const drag = (event: PointerEvent<SVGGElement>) => {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
    const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
    if (!box) return;
    const per = (X(last.front) - X(first.front)) / Math.max(1, last.kpa - first.kpa);
    const scale = box.width / (event.currentTarget.ownerSVGElement?.clientWidth || box.width);
    setDragged(held(first.kpa + ((event.clientX - box.left) / scale - X(first.front)) / per));
  };
  const done = () => {
    if (dragged !== null && dragged !== knee.kpa) void move(dragged, '');
    setDragged(null);
  };
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label="Valve knee"
      aria-valuemin={LEAST}
      aria-valuemax={Math.round(last.kpa)}
      aria-valuenow={Math.round(kpa)}
      aria-valuetext={`${spoken(pressure(kpa))}${knee.present ? '' : ', no valve yet'}`}
      style={{ cursor: 'grab', touchAction: 'none' }}
      onKeyDown={(event) => {
        const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
        if (by === undefined) return;
        event.preventDefault();
        void move(held(kpa + by * KNEE_STEP * (event.shiftKey ? 10 : 1)), '');
      }}
      onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
      onPointerMove={drag}
      onPointerUp={done}
      onPointerCancel={() => setDragged(null)}
    >
      <Ring x={x} y={y} r={22} as="hit" />
      <Ring x={x} y={y} r={5.5} as="handle" />
      {at !== null && (
        <Tag x={x - 10} y={y - 10} as="label-plan" at="end">
          {`knee ${written(pressure(at))}`}
        </Tag>
      )}
    </g>
  );
}
