/** Stops by sets on one ruler: each stop a line of speed that lands on the axis, straight below it its dot; band, dots and mean apart. */
import { useState, type KeyboardEvent } from 'react';
import styled from 'styled-components';
import type { ProveView, StopSetView, StopView } from '../../api/types';
import { Box, Line, Path, Ring, Words, poly, type Point } from '../../drawings/ink';
import { DragRing } from '../../ui/DragRing';
import { decel } from '../../units/format';
import { halfway, placeAt } from './alongStop';
import { onRoad, perMetre, speedOf, spoken, written } from '../../units/display';
import { inChosenUnits } from '../../units/sentences';

const Over = styled.div`
  position: relative;
`;
const TOP = 16;
const ROW = 56;
const CURVES = 200;
const STEP = [5, 10, 20, 50, 100, 200];

/** Speed over the way of a stop that brakes steadily: what three typed numbers say of it. */
const curve = (way: number, x: (m: number) => number, y: (share: number) => number): Point[] =>
  Array.from({ length: 25 }, (_, i) => {
    const share = 1 - i / 24;
    return [x(way * (1 - share * share)), y(share)] as const;
  });
/** The line of a stop as the server has it. */
const lineOf = ({ line }: StopView, x: (m: number) => number, y: (share: number) => number): Point[] =>
  line.way_m.map((m, i) => [x(m), y((line.speed_kmh[i] ?? 0) / (line.speed_kmh[0] ?? 1))] as const);
const counts = (stop: StopView) => stop.left_out === '';
const wayOf = (stop: StopView) => stop.corrected_m ?? stop.distance_m;

interface RowProps {
  set: StopSetView;
  y: number;
  x: (m: number) => number;
  /** How many letters of a name there is room for. */
  letters: number;
  on: string | null;
  plan: boolean;
  onStop: (key: string) => void;
}
function Row({ set, y, x, letters, on, plan, onStop }: RowProps) {
  const { predicted, mean_m: mean, low_m: low, high_m: high } = set;
  const middle = y + 16;
  return (
    <>
      <Words x={0} y={y + 12} as={plan ? 'label-plan' : 'label-strong'}>
        {set.name.length > letters ? `${set.name.slice(0, letters - 2)}…` : set.name}
      </Words>
      <Words x={0} y={y + 28} as="label-quiet">
        {mean === null
          ? 'no stop counts yet'
          : `${written(onRoad(mean))}${high !== null ? `, ± ${onRoad(high - mean).v}` : ''}`}
      </Words>
      {predicted && (
        <Box
          x={x(predicted.low_m)}
          y={y + 4}
          w={x(predicted.high_m) - x(predicted.low_m)}
          h={24}
          as={plan ? 'tint' : 'found-area'}
        />
      )}
      {set.stops.map((stop, i) => {
        const way = wayOf(stop);
        if (way === null) return null;
        const cy = middle + ((i % 3) - 1) * 5;
        const as = `${counts(stop) ? 'edge' : 'found'} ${stop.locked === 'front' ? 'solid' : stop.locked === 'none' || stop.locked === null ? 'paper' : 'section'}`;
        return (
          <g key={stop.key} className="joint" onClick={() => onStop(stop.key)}>
            <Ring x={x(way)} y={cy} r={on === stop.key ? 7 : 4.5} as={as} />
          </g>
        );
      })}
      {mean !== null && (
        <>
          {low !== null && high !== null && (
            <>
              <Line a={[x(low), y + 36]} b={[x(high), y + 36]} as="edge" />
              <Line a={[x(low), y + 32]} b={[x(low), y + 40]} as="edge" />
              <Line a={[x(high), y + 32]} b={[x(high), y + 40]} as="edge" />
            </>
          )}
          <Path d={`M${x(mean) - 5},${y + 36}l5,-5l5,5l-5,5Z`} as="solid" />
        </>
      )}
    </>
  );
}

interface StopsPlotProps {
  view: ProveView;
  width: number;
  on: string | null;
  onStop: (key: string) => void;
  /** Ask why a stop does not count. */
  onStrike: (key: string) => void;
}
export function StopsPlot({ view, width, on, onStop, onStrike }: StopsPlotProps) {
  const [moved, setMoved] = useState<{ key: string; way: number } | null>(null);
  const far = Math.max(10, view.longest_m * 1.05);
  const k = perMetre();
  const left = width < 560 ? 104 : 150;
  const x = (m: number) => left + (m / far) * (width - left - 12);
  const y = (share: number) => TOP + (1 - share) * (CURVES - TOP);
  const step = STEP.find((s) => (far * k) / s <= 9) ?? 500;
  const marks = Array.from({ length: Math.floor((far * k) / step) + 1 }, (_, i) => i * step);
  const begin = CURVES + 34;
  const found = view.setups[0];
  const said = view.sets
    .map((s) => `${s.name}: ${s.mean_m === null ? 'no stop counts' : `mean ${spoken(onRoad(s.mean_m))} of ${s.n}`}`)
    .join('; ');
  const all = view.sets.flatMap((s) => s.stops).filter((s) => s.line.way_m.length > 0);
  const rung = all.find((s) => s.key === on) ?? all.filter(counts).at(-1);
  const place = rung && placeAt(rung, moved?.key === rung.key ? moved.way : halfway(rung));
  const set = view.sets.findIndex((s) => s.stops.some((stop) => stop.key === rung?.key));
  const between = (event: KeyboardEvent) => {
    if (rung === undefined) return;
    if (event.key === 'Delete' && rung.struck === null) onStrike(rung.key);
    const by = { ArrowUp: -1, ArrowDown: 1 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation(); // up and down go between the stops, not along one
    const next = all[all.indexOf(rung) + by];
    if (next) onStop(next.key);
  };
  const told = (at: NonNullable<typeof place>) =>
    `${written(onRoad(at.way))}, ${at.time.toFixed(2)} s, ${decel(at.decel)} g`;
  const [px, py] = place ? [x(place.way), y(place.speed / (rung.line.speed_kmh[0] ?? 1))] : [0, 0];
  return (
    <Over onKeyDownCapture={between}>
      <svg
        width={width}
        height={begin + view.sets.length * ROW + 8}
        role="img"
        aria-label={`Stops from ${inChosenUnits(view.nominal)}. ${said}`}
      >
        {[0, 0.25, 0.5, 0.75, 1].map((share) => (
          <g key={share}>
            <Line a={[left, y(share)]} b={[width - 12, y(share)]} as="scale-line" />
            <Words x={left - 8} y={y(share) + 4} at="end">
              {speedOf(view.nominal_kmh * share).v}
            </Words>
          </g>
        ))}
        <Words x={0} y={TOP + 4} as="label-quiet">
          {`speed, ${speedOf(0).unit}`}
        </Words>
        {view.sets.map((set) => {
          const plan = set.setup !== found;
          const band = set.predicted;
          return (
            <g key={set.name}>
              {band && plan && (
                <Path d={`${poly([...curve(band.low_m, x, y), ...curve(band.high_m, x, y).reverse()])}Z`} as="tint" />
              )}
              {set.stops.map((stop) => {
                const way = wayOf(stop);
                if (way === null) return null;
                const as = rung?.key === stop.key ? 'heavy' : !counts(stop) ? 'found' : plan ? 'plan-thin' : 'thin';
                return <Path key={stop.key} d={poly(lineOf(stop, x, y))} as={as} />;
              })}
            </g>
          );
        })}
        <Line a={[left, CURVES]} b={[width - 12, CURVES]} as="edge" />
        {marks.map((m) => (
          <g key={m}>
            <Line a={[x(m / k), CURVES]} b={[x(m / k), CURVES + 5]} as="thin" />
            <Words x={x(m / k)} y={CURVES + 18} at="middle">
              {m}
            </Words>
          </g>
        ))}
        <Words x={width - 2} y={CURVES + 18} at="end">
          {onRoad(0).unit}
        </Words>
        {view.sets.map((set, i) => (
          <g key={set.name}>
            {i > 0 && <Line a={[0, begin + i * ROW - 6]} b={[width - 12, begin + i * ROW - 6]} as="scale-line" />}
            <Row
              set={set}
              y={begin + i * ROW}
              x={x}
              letters={Math.floor(left / 6.4)}
              on={on}
              plan={set.setup !== found}
              onStop={onStop}
            />
          </g>
        ))}
        {rung && place && (
          <>
            <Line a={[px, py]} b={[px, CURVES]} as="plan-thin" />
            <Line a={[x(wayOf(rung) ?? 0), CURVES]} b={[x(wayOf(rung) ?? 0), begin + set * ROW + 16]} as="plan-thin" />
            <Words x={width - 12} y={TOP + 14} as="label-strong" at="end">
              {`${told(place)}${rung.line.steady ? ', if steady' : ''}`}
            </Words>
            <Words x={width - 12} y={TOP + 30} as="label-strong" at="end">
              {`stop ${rung.number}, at ${written(speedOf(place.speed))}`}
            </Words>
          </>
        )}
      </svg>
      {rung && place && (
        <DragRing
          label={`Along stop ${rung.number} of ${view.sets[set]?.name ?? ''}`}
          value={place.way}
          least={0}
          most={rung.line.way_m.at(-1) ?? 0}
          step={0.1}
          along="x"
          perPixel={far / (width - left - 12)}
          left={`${px}px`}
          top={`${py}px`}
          text={(way) => `at ${written(speedOf(placeAt(rung, way).speed))}: ${told(placeAt(rung, way))}`}
          quiet
          onTake={(way) => {
            setMoved({ key: rung.key, way });
            return Promise.resolve();
          }}
        />
      )}
    </Over>
  );
}
