/** Every combination tried, push against travel: each square a handful, its area their number; what was kept is numbered. */
import { memo, useState, useMemo } from 'react';
import { Button } from 'react-aria-components';
import styled from 'styled-components';
import type { Found, Kept } from '../api/types';
import { Box, Line, r2, Ring, Tag, Words, type Point } from '../drawings/ink';
import { DragRing } from '../ui/DragRing';

import { force, lengthOf, perMillimetre, perNewton, spoken, written } from '../units/display';
import { parted } from './apart';
import { Axes, scaleOf } from './axes';

interface TriedProps {
  width: number;
  height: number;
  found: Found;
  /** The setups shown, in order: the first of them are numbered. */
  rows: readonly Kept[];
  on: number | null;
  /** The limit whose squares are lit. */
  lit: string | null;
  onRow: (row: number | null) => void;
  /** Beyond these the push and the travel are dangers by themselves: a limit is moved below them. */
  dangers: { effort_n: number; travel_share: number };
  /** A limit moved to this push in N, to this share of the pedal's room. */
  onLimit: (limit: 'effort_n' | 'travel_share', value: number) => void;
  description: string;
}

/** So many are numbered, their balloons so far apart; more would cover each other. */
const NUMBERED = 9;
const APART = 21;
/** A balloon that stands further from its mark has a leader to it. */
const LED = 3;
/** What a letter of a label takes across at most, and its line from the baseline up and down. */
const LETTER = 7;
const [RISE, DROP] = [12, 3];
/** Where the name of a mark may stand below or above it, as a baseline; the first that no limit is written over. */
const BASELINES = [14, -9];

const Over = styled.div`
  position: relative;
  .squares {
    fill: var(--ink-2);
  }
  .sqlit {
    fill: var(--danger);
  }
  .sqkept {
    fill: var(--plan);
  }
  .whisk {
    stroke: var(--ink);
    stroke-width: var(--r-outline);
  }
  .whiskon {
    stroke: var(--plan);
    stroke-width: var(--r-heavy);
  }
  button {
    position: absolute;
    width: 24px;
    height: 24px;
    border: 0;
    border-radius: 50%;
    padding: 0;
    background: none;
  }
  @media (pointer: coarse) {
    button {
      width: var(--target);
      height: var(--target);
      margin: -10px 0 0 -10px;
    }
  }
  button[data-focus-visible] {
    outline: var(--r-heavy) solid var(--ink);
    outline-offset: 0;
  }
  @media print {
    button {
      display: none;
    }
  }
`;

/**
 * A limit that is moved stands where it was put until the search with it is there: meanwhile a search that was begun on the way
 * still says where it was. Another limit, typed elsewhere, takes its place at once.
 */
function useMoved(limit: number): [number, (to: number) => void] {
  const [moved, setMoved] = useState<{ to: number; seen: readonly number[] } | null>(null);
  const seen = moved?.seen.includes(limit) ?? false;
  if (moved && (!seen || limit === moved.to)) setMoved(null);
  const move = (to: number) => setMoved((now) => ({ to, seen: [...(now?.seen ?? [limit]), to] }));
  return [moved && seen ? moved.to : limit, move];
}

/** All squares of some ids as one path; the fullest is a whole square. */
function squares(
  found: Found,
  ids: (id: string) => boolean,
  x: (mm: number) => number,
  y: (n: number) => number,
): string {
  const { across, up, scale } = found;
  const cells = new Map<number, number>();
  for (const own of found.squares) {
    if (!ids(own.id)) continue;
    own.at.forEach((at, i) => cells.set(at, (cells.get(at) ?? 0) + (own.count[i] ?? 0)));
  }
  const sizes = [...cells.values()].sort((a, b) => a - b);
  const full = sizes[Math.floor(sizes.length * 0.98)] ?? 1;
  const wide = Math.abs(x(scale.travel_mm / across) - x(0));
  const high = Math.abs(y(scale.push_n / up) - y(0));
  let d = '';
  for (const [at, count] of cells) {
    const share = Math.max(0.16, Math.min(1, Math.sqrt(count / full)));
    const w = (wide - 0.8) * share;
    const h = (high - 0.8) * share;
    const cx = x(((at % across) + 0.5) * (scale.travel_mm / across));
    const cy = y((Math.floor(at / across) + 0.5) * (scale.push_n / up));
    d += `M${r2(cx - w / 2)},${r2(cy - h / 2)}h${r2(w)}v${r2(h)}h${r2(-w)}z`;
  }
  return d;
}

function bounds(found: Found): { low: number; high: number; most: number } {
  const { across, up, scale } = found;
  let low = across;
  let high = 0;
  for (const { at } of found.squares)
    for (const n of at) {
      low = Math.min(low, n % across);
      high = Math.max(high, Math.floor(n / across));
    }
  const marks = found.setups.map((m) => m.travel_mm);
  const least = Math.min(low * (scale.travel_mm / across), ...marks);
  return {
    low: Math.max(0, least - 8),
    high: scale.travel_mm,
    most: Math.max(found.effort_n * 1.15, Math.min(scale.push_n, (high + 1) * (scale.push_n / up))),
  };
}

export const Tried = memo(function Tried({
  width,
  height,
  found,
  rows,
  on,
  lit,
  onRow,
  dangers,
  onLimit,
  description,
}: TriedProps) {
  const left = 40;
  const right = width - 14;
  const top = 16;
  const bottom = height - 32;
  const { low, high, most } = useMemo(() => bounds(found), [found]);
  const along = useMemo(
    () => scaleOf(low * perMillimetre(), high * perMillimetre(), left, right, 5),
    [low, high, right],
  );
  const x = useMemo(() => (mm: number) => along(mm * perMillimetre()), [along]);
  const up = useMemo(() => scaleOf(0, most * perNewton(), bottom, top, 6), [most, bottom]);
  const y = useMemo(() => (n: number) => up(n * perNewton()), [up]);
  const every = useMemo(() => squares(found, () => true, x, y), [found, x, y]);
  const litSquares = useMemo(() => (lit === null ? '' : squares(found, (id) => id === lit, x, y)), [found, lit, x, y]);
  const [effort, moveEffort] = useMoved(found.effort_n);
  const [share, moveShare] = useMoved(found.travel_share);
  const limit = (name: 'effort_n' | 'travel_share') => (value: number) => {
    if (name === 'effort_n') moveEffort(value);
    else moveShare(Math.round(value * 100) / 100);
    onLimit(name, value);
    return Promise.resolve();
  };
  const room = share * found.room_mm;
  const inside = (travel: number, push: number) => travel >= low && travel <= high && push <= most;
  const tooHard = `${written(force(effort))}, too hard`;
  const [limitEnd, limitBase] = [x(room) - 6, y(effort) - 5];
  const onLimits = (from: number, base: number, words: string) =>
    from < limitEnd &&
    from + words.length * LETTER > limitEnd - tooHard.length * LETTER &&
    Math.abs(base - limitBase) < RISE + DROP;
  const first = found.setups[0]?.name;
  const stands = rows.some((r) => r.as_it_stands);
  // What lies beyond the frame stands at its edge, with its figures.
  const marks = found.setups
    .filter((m) => !(stands && m.name === found.setup))
    .map((m) => {
      const own = inside(m.travel_mm, m.push_n);
      const figures = `${m.name} ${written(force(m.push_n))}, ${written(lengthOf(m.travel_mm))}`;
      const [cx, cy] = [Math.min(right - 7, Math.max(left + 7, x(m.travel_mm))), Math.max(top + 8, y(m.push_n))];
      const words = own ? m.name : figures;
      const end = cx > right - 160;
      const from = end ? cx - 9 - words.length * LETTER : cx + 9;
      const base = cy + (BASELINES.find((b) => !onLimits(from, cy + b, words)) ?? 0);
      return { name: m.name, words, cx, cy, end, base };
    });
  const places = useMemo(() => {
    const at = rows.slice(0, NUMBERED).map((row): Point => [x(row.travel_mm), y(row.push_n)]);
    return parted(at, APART, { left: left + 10, right: right - 10, top: top + 10, bottom: bottom - 10 });
  }, [rows, x, y, right, bottom]);
  // The first lie on top of the others, the one looked at on top of all.
  const order = [...rows.keys()].reverse().filter((i) => i !== on);
  if (on !== null) order.push(on);
  return (
    <Over style={{ width, height }}>
      <svg width={width} height={height} role="img" aria-label={description}>
        <Box
          x={left}
          y={y(found.band.good)}
          w={Math.max(0, x(0.55 * found.room_mm) - left)}
          h={y(found.band.low) - y(found.band.good)}
          as="comfort"
        />
        <Axes
          {...{ x: along, y: up, left, right, top, bottom }}
          xName={`pedal travel at ${found.decel_g.toFixed(2)} g, ${lengthOf(0).unit}`}
          yName={`push, ${force(0).unit}`}
        />
        <Box x={left} y={top} w={right - left} h={Math.max(0, y(effort) - top)} as="beyond-limit" />
        <Box
          x={x(room)}
          y={y(effort)}
          w={Math.max(0, right - x(room))}
          h={Math.max(0, bottom - y(effort))}
          as="beyond-limit"
        />
        <path d={every} className="squares" opacity={lit === null ? 1 : 0.35} />
        {litSquares !== '' && <path d={litSquares} className={lit === 'kept' ? 'sqkept' : 'sqlit'} />}
        <Line a={[left, y(effort)]} b={[x(room), y(effort)]} as="limit" />
        <Line a={[x(room), y(effort)]} b={[x(room), bottom]} as="limit" />
        <Tag x={x(room) - 6} y={y(effort) - 5} as="label label-danger" at="end">
          {tooHard}
        </Tag>
        <Tag x={x(room) + 6} y={bottom - 8} as="label label-danger">
          {`${Math.round(share * 100)} %, too long`}
        </Tag>
        {x(0.55 * found.room_mm) > left + 60 && (
          <Words x={left + 6} y={y(found.band.low) - 6} as="label label-good">
            comfort
          </Words>
        )}
        {marks.map((m) => (
          <g key={m.name}>
            {m.name === first ? (
              <Ring x={m.cx} y={m.cy} r={5} as="found-shape" />
            ) : (
              <Box x={m.cx - 4.5} y={m.cy - 4.5} w={9} h={9} as="other-mark" />
            )}
            <Tag
              x={m.cx + (m.end ? -9 : 9)}
              y={m.base}
              as={m.name === first ? 'label-found' : 'label-strong'}
              at={m.end ? 'end' : 'start'}
            >
              {m.words}
            </Tag>
          </g>
        ))}
        {order.map((i) => {
          const row = rows[i];
          if (!row) return null;
          const [cx, cy] = [x(row.travel_mm), y(row.push_n)];
          const { push_n: push, travel_mm: travel } = row.doubt ?? {};
          const [bx, by] = places[i] ?? [cx, cy];
          const as = i === on ? 'whiskon' : 'whisk';
          return (
            <g key={i}>
              {push && travel && (on === null || i === on) && (
                <>
                  <Line a={[Math.max(left, x(travel.p5)), cy]} b={[Math.min(right, x(travel.p95)), cy]} as={as} />
                  <Line a={[cx, y(push.p5)]} b={[cx, Math.max(top, y(push.p95))]} as={as} />
                </>
              )}
              {i < NUMBERED || i === on ? (
                <>
                  {Math.hypot(bx - cx, by - cy) > LED && (
                    <>
                      <Line a={[cx, cy]} b={[bx, by]} as="thin" />
                      <Ring x={cx} y={cy} r={2} as="solid" />
                    </>
                  )}
                  <Ring x={bx} y={by} r={i === on ? 10 : 8.5} as={i === on ? 'plan-area' : 'edge paper'} />
                  <Words x={bx} y={by + 4.2} as={i === on ? 'balloon on' : 'balloon'} at="middle">
                    {i + 1}
                  </Words>
                </>
              ) : (
                <Ring x={cx} y={cy} r={3} as="edge paper" />
              )}
            </g>
          );
        })}
      </svg>
      {rows.map((row, i) => {
        const [bx, by] = places[i] ?? [x(row.travel_mm), y(row.push_n)];
        return (
          <Button
            key={i}
            aria-label={`Setup ${i + 1}: ${spoken(force(row.push_n))}, ${spoken(lengthOf(row.travel_mm))}`}
            style={{ left: bx - 12, top: by - 12 }}
            onHoverStart={() => onRow(i)}
            onFocus={() => onRow(i)}
            onPress={() => onRow(i)}
          />
        );
      })}
      <DragRing
        label="Limit of the push"
        value={effort}
        least={50}
        most={dangers.effort_n}
        step={5}
        perPixel={-most / (bottom - top)}
        left={`${left + 14}px`}
        top={`${y(effort)}px`}
        text={(n) => written(force(n))}
        onTake={limit('effort_n')}
      />
      <DragRing
        label="Limit of the travel"
        value={share}
        least={0.2}
        most={dangers.travel_share}
        step={0.01}
        along="x"
        perPixel={(high - low) / (right - left) / found.room_mm}
        left={`${x(room)}px`}
        top={`${bottom - 30}px`}
        text={(of) => `${Math.round(of * 100)} %`}
        onTake={limit('travel_share')}
      />
    </Over>
  );
});
