/** Where the pedal goes: travel by cause as a stair from rest down to the floor. */
import type { TravelBand } from '../api/types';
import { memo } from 'react';
import { Arrow, Box, Dimension, Line, r2, Tag, Words } from '../drawings/ink';
import { lengthOf, perMillimetre } from '../units/display';

export interface Cause {
  name: string;
  mm: number;
  side: 'front' | 'rear' | 'shared';
}
export interface Lost {
  words: string;
  ends: string;
  mm: number | null;
  level: 'danger' | 'caution' | 'good';
}
interface TravelStairProps {
  width: number;
  height: number;
  causes: readonly Cause[];
  total: number;
  available: number | null;
  band: TravelBand;
  found: number | null;
  foundName: string;
  lost: readonly Lost[];
  stroke: { used: number; whole: number } | null;
  description: string;
}

const ROW = 16;
const LEAST_ROW = 12.5;
const NAMES = 150;

/** Figures of so many digits that sum to the printed total. */
export function printedParts(values: readonly number[], total: number, digits: number): string[] {
  const fine = 10 ** digits;
  const floors = values.map((v) => Math.floor(v * fine));
  let missing = Math.round(total * fine) - floors.reduce((a, b) => a + b, 0);
  const order = values.map((v, i) => ({ i, rest: v * fine - Math.floor(v * fine) })).sort((a, b) => b.rest - a.rest);
  for (const { i } of order) {
    if (missing <= 0) break;
    floors[i] = (floors[i] ?? 0) + 1;
    missing -= 1;
  }
  return floors.map((n) => (n / fine).toFixed(digits));
}

const BAD = { danger: 0, caution: 1, good: 2 } as const;
/** The losses there is room for, the worst first where it is not enough for all; each has its finding. */
function fitting(lost: readonly Lost[], height: number, causes: number): readonly Lost[] {
  const room = Math.max(2, Math.floor((height - 72) / LEAST_ROW) - causes);
  return lost.length <= room ? lost : [...lost].sort((a, b) => BAD[a.level] - BAD[b.level]).slice(0, room);
}
/** Rows as high as there is room for, within reason; the rest scrolls. */
const rowFor = (height: number, rows: number) => Math.min(ROW, Math.max(LEAST_ROW, (height - 72) / Math.max(1, rows)));

interface CauseProps {
  name: string;
  side: Cause['side'];
  printed: string;
  x: number;
  y: number;
  wide: number;
  row: number;
}
/** One cause: its name, its millimetres, its step of the stair. Drawn again only when one of them has moved. */
const CauseRow = memo(function CauseRow({ name, side, printed, x, y, wide, row }: CauseProps) {
  return (
    <g>
      <Words x={0} y={y + row - 4} as="label">
        {name}
      </Words>
      <Words x={NAMES - 7} y={y + row - 4} at="end">
        {printed}
      </Words>
      <Box
        x={x}
        y={y + 2}
        w={wide}
        h={row - 5}
        as={side === 'front' ? 'plan-area' : side === 'rear' ? 'plan-hatched' : 'edge paper'}
      />
      <Line a={[x + wide, y + row - 3]} b={[x + wide, y + row + 2]} />
    </g>
  );
});

interface FloorProps extends TravelBand {
  x0: number;
  scale: number;
  room: number;
  top: number;
  bottom: number;
  end: number;
}
/** The floor, and how much of the room is good to use. */
const Floor = memo(function Floor({ good, danger, x0, scale, room, top, bottom, end }: FloorProps) {
  const X = (share: number) => x0 + share * room * scale;
  return (
    <>
      <Line a={[X(good), top - 7]} b={[X(good), bottom + 3]} as="limit-good" />
      <Line a={[X(danger), top - 7]} b={[X(danger), bottom + 3]} as="limit" />
      <Words x={X(good) + 3} y={top - 10} as="label label-good" at="end">
        {`good to ${Math.round(good * 100)} %`}
      </Words>
      <Words x={X(danger)} y={top - 10} as="label label-danger" at="middle">
        {`${Math.round(danger * 100)} %`}
      </Words>
      <Box x={X(1)} y={top - 7} w={8} h={end - top} as="ground" />
      <Line a={[X(1), top - 7]} b={[X(1), end - 7]} as="edge" />
    </>
  );
});

interface LostProps extends Lost {
  x0: number;
  x1: number;
  /** Where the pedal stops with it lost. */
  at: number;
  y: number;
  width: number;
}
/** What is left with one circuit lost, or something else failed. */
const LostRow = memo(function LostRow({ words, ends, mm, level, x0, x1, at, y, width }: LostProps) {
  const ink = level === 'danger' ? 'label-danger' : level === 'caution' ? 'label-caution' : '';
  const line = level === 'danger' ? 'limit-danger' : level === 'caution' ? 'limit-caution' : 'thin';
  const wide = ends.length * 6.1 + 10;
  const inside = at - x0 > wide + 8;
  const beyond = !inside && at + 6 + wide > width;
  const letters = Math.floor((x0 - 6) / 5.9);
  return (
    <g>
      <title>{`${words}: ${ends}`}</title>
      {mm !== null && (
        <>
          <Line a={[x0, y]} b={[inside ? at - wide : at, y]} as={line} />
          {inside && <Line a={[at - 5, y]} b={[at, y]} as={line} />}
          <Line a={[at, y - 5]} b={[at, y + 5]} as={line} />
        </>
      )}
      <Words x={0} y={y + 4} as={`label ${ink}`}>
        {words.length > letters ? `${words.slice(0, letters - 1)}…` : words}
      </Words>
      {beyond ? (
        <Tag x={x1 - 8} y={y + 4.5} as={`label ${ink}`} at="end">
          {ends}
        </Tag>
      ) : (
        <Words x={inside ? at - 8 : at + 6} y={y + 4.5} as={`label ${ink}`} at={inside ? 'end' : 'start'}>
          {ends}
        </Words>
      )}
    </g>
  );
});

export function TravelStair(p: TravelStairProps) {
  const { width, causes, total, available, found } = p;
  const lost = fitting(p.lost, p.height, causes.length);
  const row = rowFor(p.height, causes.length + lost.length);
  const x0 = NAMES;
  const x1 = width - 10;
  const room = available ?? Math.max(total, found ?? 0) * 1.2;
  const S = (x1 - x0) / Math.max(room, total, 1);
  const X = (mm: number) => x0 + mm * S;
  const top = 20;
  const bottom = top + causes.length * row;
  const dim = bottom + 13;
  const k = perMillimetre();
  const printed = printedParts(
    causes.map((c) => c.mm * k),
    total * k,
    lengthOf(0, 1).v.length - 2,
  );
  const before = causes.map((_, i) => causes.slice(0, i).reduce((sum, c) => sum + c.mm, 0));
  const foundY = dim + row;
  const end = foundY + lost.length * row + 10;
  const height = end + 12;
  return (
    <svg width={width} height={height} role="img" aria-label={p.description}>
      {available !== null && <Floor {...p.band} x0={x0} scale={S} room={room} top={top} bottom={bottom} end={end} />}
      {causes.map((c, i) => {
        const y = top + i * row;
        return (
          <CauseRow
            key={c.name}
            name={c.name}
            side={c.side}
            printed={printed[i] ?? ''}
            x={r2(X(before[i] ?? 0))}
            y={y}
            wide={r2(c.mm * S)}
            row={row}
          />
        );
      })}
      <Line a={[X(0), top + 2]} b={[X(0), dim + 5]} />
      <Line a={[X(total), bottom]} b={[X(total), dim + 5]} as="plan-thin" />
      <Words x={0} y={dim + 4} as="label">
        in all, at the pad
      </Words>
      <Words x={x0 - 7} y={dim + 4.5} as="label-plan" at="end">
        {lengthOf(total, 1).v}
      </Words>
      <Line a={[X(0), dim]} b={[X(total), dim]} as="plan-thin" />
      <Arrow x={X(0)} y={dim} turn={180} as="plan-area" />
      <Arrow x={X(total)} y={dim} turn={0} as="plan-area" />
      {available !== null && room - total > 12 && (
        <Dimension x1={X(total)} x2={X(room)} y={dim} label={lengthOf(room - total).v} gap={24} />
      )}
      {found !== null && (
        <>
          <Words x={0} y={foundY + 4} as="label-found">
            {p.foundName}
          </Words>
          <Line a={[X(0), foundY]} b={[Math.min(X(found), x1), foundY]} as="found" />
          <Line a={[Math.min(X(found), x1), foundY - 5]} b={[Math.min(X(found), x1), foundY + 5]} as="found" />
          <Words x={x0 - 7} y={foundY + 4.5} as="figure-found" at="end">
            {lengthOf(found, 1).v}
          </Words>
        </>
      )}
      {lost.map((l, i) => (
        <LostRow
          key={l.words}
          {...l}
          x0={x0}
          x1={x1}
          at={l.mm === null ? x0 : r2(Math.min(X(l.mm), X(room)))}
          y={foundY + (i + 1) * row}
          width={width}
        />
      ))}
      {p.stroke && (
        <>
          <Words x={0} y={end + 9} as="label">
            cylinder stroke
          </Words>
          <Box x={X(0)} y={end - 1} w={(x1 - x0) * 0.5} h={11} as="edge paper" />
          <Box
            x={X(0)}
            y={end - 1}
            w={Math.min(1, p.stroke.used / p.stroke.whole) * (x1 - x0) * 0.5}
            h={11}
            as="plan-area"
          />
          <Words x={X(0) + (x1 - x0) * 0.5 + 5} y={end + 9}>
            {lengthOf(p.stroke.used, 1).v} of {lengthOf(p.stroke.whole).v}
          </Words>
        </>
      )}
    </svg>
  );
}
