/** What each instrument shows of the setup on the line, from the core's figures. */
import { memo, useCallback, useMemo } from 'react';
import { Adhesion } from '../../charts/Adhesion';
import { Balance } from '../../charts/Balance';
import { Feel, type FeelDot, type FeelMark } from '../../charts/Feel';
import { RatioCurve } from '../../charts/RatioCurve';
import { TravelStair } from '../../charts/TravelStair';
import { ValveCurve } from '../../charts/ValveCurve';
import type { Point } from '../../drawings/ink';
import { Plotted } from '../../ui/DataTable';
import { useWidth } from '../../ui/useWidth';
import { decel, percent } from '../../units/format';
import { force, lengthOf, onAScale, pressure, spoken, written } from '../../units/display';
import { kneeOf, kneeStep, valueStep } from '../../chain/place';
import { causesOf, lostOf, pathsOf, roomLeft, shortName } from './instruments';
import { describeBalance, describeTravel } from '../../chain/descriptions';
import { adhesionTable, balanceTable, feelTable, ratioTable, travelTable, valveTable } from './tables';
import { pathOf } from './select';
import type { Reading } from './useSize';
import { difference } from '../../chain/words';

/** What an instrument shows of a reading, and the room it has. */
type Of<K extends keyof Reading> = Pick<Reading, K> & { height: number };
const HEAD = 74;
const BEYOND = 1.15; // of the room: bores that ask for more are not drawn

export const FeelView = memo(function FeelView({
  view,
  solved,
  state,
  load,
  setup,
  place,
  onStep,
  height,
}: Of<'view' | 'solved' | 'state' | 'load' | 'setup' | 'place' | 'onStep'>) {
  const [ref, width] = useWidth<HTMLDivElement>(300);
  const bore = solved.parts.cylinder.bore_mm;
  const dots = useMemo(
    () =>
      solved.bores.flatMap((b): FeelDot[] => {
        const at = b.states[load];
        const room = solved.parts.pedal.available_mm ?? Infinity;
        if (!at || at.travel_mm === null || at.travel_mm > room * BEYOND) return [];
        return [
          {
            name: b.name,
            bore: b.bore_mm,
            push: at.push_n,
            travel: at.travel_mm,
            own: Math.abs(b.bore_mm - bore) < 0.15,
          },
        ];
      }),
    [solved.bores, load, bore, solved.parts.pedal.available_mm],
  );
  const marks = useMemo(
    () =>
      view.setups.flatMap((s, i): FeelMark[] => {
        const drawn = s.key === setup.key ? setup : s;
        const at = pathOf(drawn, solved.name)?.states[load];
        const travel = at?.at_stop?.systems[solved.system]?.pedal_travel_mm;
        if (!at?.at_stop || travel === null || travel === undefined) return [];
        const kind = s.key === setup.key ? 'plan' : i === 0 ? 'found' : 'other';
        return [{ name: shortName(s.name), kind, push: at.at_stop.pedal_force_n, travel }];
      }),
    [view.setups, setup, solved.name, solved.system, load],
  );
  const room = solved.parts.pedal.available_mm;
  const onBore = useMemo(
    () =>
      solved.lines.length === 1 && solved.parts.cylinder.kind !== 'twin'
        ? (dot: FeelDot) =>
            void onStep(valueStep(place, `bore ${dot.name}`, `${place.control}.cylinder.bore_mm`, dot.name)).catch(
              () => undefined,
            )
        : null,
    [solved, onStep, place],
  );
  const onOwn = useCallback(
    (of: 'push' | 'travel', value: number | null, gesture: string) => {
      const path = of === 'push' ? '/own_limits/effort_n' : '/own_limits/travel_mm';
      return onStep({
        label: `own limit of the ${of}`,
        gesture,
        edits: [value === null ? { op: 'remove', path } : { path, value }],
      }).catch(() => undefined);
    },
    [onStep],
  );
  if (marks.length === 0)
    return <p>It needs the pedal’s travel: {(setup.needs.travel ?? []).length} more to measure.</p>;
  const wanted = view.wanted_decel_g ?? 0;
  const own = state.at_stop?.pedal_force_n ?? 0;
  const was = pathOf(view.setups[0], solved.name)?.states[load]?.at_stop?.pedal_force_n;
  return (
    <>
      <p>
        {difference(solved.against_found[load]) ||
          (state.stop_push_n === null && state.lock
            ? `Locks before ${decel(wanted)} g: at ${decel(state.lock.decel_g)} g, ${written(force(own))}.`
            : `At ${decel(wanted)} g: ${written(force(own))}.`)}{' '}
        {`Hold ${onAScale(own)} on a bathroom scale with your foot`}
        {was !== undefined && setup !== view.setups[0] ? `, as found ${onAScale(was)}.` : '.'}
      </p>
      <div className="plot" ref={ref}>
        <Plotted table={() => feelTable(dots, marks)}>
          <Feel
            width={width}
            height={Math.max(130, height - HEAD)}
            dots={dots}
            marks={marks}
            effort={view.effort}
            limit={view.force_limit_n}
            good={room === null ? null : room * view.travel.good}
            room={room}
            description={`Feel at ${decel(wanted)} g: ${marks.map((m) => `${m.name} ${spoken(force(m.push))}, ${spoken(lengthOf(m.travel))}`).join('; ')}.`}
            onBore={onBore}
            own={{ push: view.own_limits.effort_n, travel: view.own_limits.travel_mm }}
            onOwn={onOwn}
          />
        </Plotted>
      </div>
    </>
  );
});

export const BalanceView = memo(function BalanceView({
  view,
  now,
  state,
  load,
  setup,
  solved,
  place,
  onStep,
  trying,
  failure,
  height,
}: Of<'view' | 'now' | 'state' | 'load' | 'setup' | 'solved' | 'place' | 'onStep' | 'trying' | 'failure'>) {
  const [ref, width] = useWidth<HTMLDivElement>(330);
  const paths = useMemo(
    () => pathsOf(view.setups, setup, state, solved.name, load),
    [view.setups, setup, state, solved.name, load],
  );
  const knee = useMemo(() => (trying || failure ? null : kneeOf(solved, state)), [trying, failure, solved, state]);
  const total = now.front + now.rear;
  const ideal = now.idealShare === null ? '' : `, ideal ${percent(now.idealShare)}`;
  return (
    <>
      <p>
        {total > 0
          ? `Front share ${percent(now.front / total)}${ideal} at ${decel(now.decel)} g.`
          : 'Nothing brakes at this push.'}
      </p>
      <div className="plot" ref={ref}>
        <Plotted table={() => balanceTable(state.curves)}>
          <Balance
            width={width}
            height={Math.max(140, height - HEAD)}
            tyres={state.balance}
            paths={paths}
            at={{ front: now.front, rear: now.rear, name: shortName(setup.name) }}
            description={describeBalance(setup.name, state, now)}
            knee={knee}
            onKnee={async (kpa) => {
              const station = solved.parts.stations.find((s) => s.axle === 'rear');
              if (station) await onStep(kneeStep(place, station, `${(kpa / 1000).toFixed(2)} MPa`));
            }}
          />
        </Plotted>
      </div>
    </>
  );
});

const FOR_TRAVEL = [
  ['available_travel_mm', 'the pedal’s travel to its stop'],
  ['stroke_mm', 'the cylinder’s stroke'],
  ['hoses', 'the hoses’ lengths'],
  ['hard_lines', 'the hard lines’ lengths'],
  ['lines', 'the lines'],
] as const;
/** What travel still wants, by the parts of the places in the file, each said once. */
const wantedForTravel = (paths: readonly string[]) =>
  [
    ...new Set(
      paths.map((path) => FOR_TRAVEL.find(([part]) => path.split('.').includes(part))?.[1] ?? path.split('.').pop()),
    ),
  ].join(', ');

export const TravelView = memo(function TravelView({
  view,
  now,
  solved,
  state,
  found,
  behind,
  setup,
  height,
}: Of<'view' | 'now' | 'solved' | 'state' | 'found' | 'behind' | 'setup'>) {
  const [ref, width] = useWidth<HTMLDivElement>(350);
  const room = solved.parts.pedal.available_mm;
  const whole = solved.parts.cylinder.stroke_mm;
  if (now.travel === null) return <p>It still needs, from Measure: {wantedForTravel(setup.needs.travel ?? [])}.</p>;
  return (
    <>
      <p>
        {room === null
          ? `${written(lengthOf(now.travel))}.`
          : `${lengthOf(now.travel).v} of ${written(lengthOf(room))} (${percent(now.travel / room)}), ${roomLeft(room, now.travel)}.`}
      </p>
      <div className="plot" ref={ref}>
        <Plotted table={() => travelTable(causesOf(now, solved.parts.stations), now.travel ?? 0)}>
          <TravelStair
            width={width}
            height={height - HEAD}
            causes={causesOf(now, solved.parts.stations)}
            total={now.travel}
            available={room}
            band={view.travel}
            found={found?.now.travel ?? null}
            foundName={behind}
            lost={lostOf(state.failures, setup.findings)}
            stroke={whole !== null && now.piston !== null ? { used: now.piston, whole } : null}
            description={describeTravel(solved, now)}
          />
        </Plotted>
      </div>
    </>
  );
});

export const ValveView = memo(function ValveView({ solved, state, now, height }: Of<'solved' | 'state' | 'now'>) {
  const [ref, width] = useWidth<HTMLDivElement>(330);
  const lines = Object.values(state.curves.lines).flatMap((line) =>
    Object.entries(line.stations).map(([name, own]) => ({
      name,
      front: solved.parts.stations.find((s) => s.name === name)?.axle !== 'rear',
      points: own.inlet_kpa.map((p, i): Point => [p, own.outlet_kpa[i] ?? 0]),
      at: [now.stations[name]?.inlet ?? 0, now.stations[name]?.outlet ?? 0] as Point,
    })),
  );
  const valve = solved.parts.stations.find((s) => s.valve)?.valve;
  return (
    <>
      <p>
        {valve
          ? `Knee ${written(pressure(valve.knee_kpa))}; above it ${percent(valve.slope)} of the rise is passed.`
          : 'No proportioning valve: what goes in comes out.'}
      </p>
      <div className="plot" ref={ref}>
        <Plotted table={() => valveTable(lines)}>
          <ValveCurve
            width={width}
            height={Math.max(130, height - HEAD)}
            lines={lines}
            description={`Pressure through the valves: ${lines.map((l) => `${l.name} ${(l.at[1] / 1000).toFixed(2)} of ${(l.at[0] / 1000).toFixed(2)} megapascal`).join('; ')}.`}
          />
        </Plotted>
      </div>
    </>
  );
});

export const AdhesionView = memo(function AdhesionView({ state, now, kind, height }: Of<'state' | 'now' | 'kind'>) {
  const [ref, width] = useWidth<HTMLDivElement>(330);
  const { curves, balance } = state;
  const braked = (list: readonly (number | null)[], force: readonly number[]) =>
    curves.decel_g.flatMap((z, i): Point[] => ((force[i] ?? 0) > 0 && list[i] != null ? [[z, list[i]]] : []));
  const { front, rear } = now.adhesion;
  const used = (share: number | null) => (share === null ? 'nothing: it is off the ground' : share.toFixed(2));
  const more = (rear ?? 0) > (front ?? 0) ? 'rear' : 'front';
  return (
    <>
      <p>
        At {decel(now.decel)} g the front uses {used(front)}, the rear {used(rear)}: the {more} nearer to locking. UN
        R13-H, from memory.
      </p>
      <div className="plot" ref={ref}>
        <Plotted table={() => adhesionTable(curves)}>
          <Adhesion
            width={width}
            height={Math.max(130, height - HEAD - 16)}
            front={braked(curves.adhesion_front, curves.front_n)}
            rear={braked(curves.adhesion_rear, curves.rear_n)}
            at={{ decel: now.decel, ...now.adhesion }}
            grip={balance.grip_front}
            car={kind === 'car'}
            description={`Adhesion used at ${decel(now.decel)} g: front ${used(front)}, rear ${used(rear)}.`}
          />
        </Plotted>
      </div>
    </>
  );
});

export const RatioView = memo(function RatioView({ solved, state, now, height }: Of<'solved' | 'state' | 'now'>) {
  const [ref, width] = useWidth<HTMLDivElement>(330);
  const line = state.curves.lines[solved.system];
  const { pedal } = solved.parts;
  const travel = line?.travel_mm ?? null;
  if (!line || travel === null) return <p>It needs the pedal’s travel.</p>;
  const points = travel.map((mm, i): Point => [mm, line.ratio?.[i] ?? pedal.ratio]);
  const at: Point = [now.travel ?? 0, now.ratio ?? pedal.ratio];
  return (
    <>
      <p>
        {pedal.linked
          ? `${at[1].toFixed(2)} at this push; the rod stands ${(now.rodAngle ?? 0).toFixed(1)}° to the bore (caution above 3°).`
          : `A straight rod: ${pedal.ratio.toFixed(2)} all the way.`}
      </p>
      <div className="plot" ref={ref}>
        <Plotted table={() => ratioTable(points)}>
          <RatioCurve
            width={width}
            height={Math.max(130, height - HEAD)}
            points={points}
            at={at}
            description={`Pedal ratio ${at[1].toFixed(2)} at ${spoken(lengthOf(at[0]))} of travel.`}
          />
        </Plotted>
      </div>
    </>
  );
});
