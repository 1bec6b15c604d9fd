/** What each instrument shows of the setup on the line, from the core's figures. */
import { memo, useMemo } from 'react';
import { Adhesion } from '../../charts/Adhesion';
import { Balance } from '../../charts/Balance';
import { Feel, type FeelDot, type FeelMark } from '../../charts/Feel';
import { RatioCurve } from '../../charts/RatioCurve';
import { TravelStair } from '../../charts/TravelStair';
import { ValveCurve } from '../../charts/ValveCurve';
import type { Point } from '../../drawings/ink';
import { Plotted } from '../../ui/DataTable';
import { useWidth } from '../../ui/useWidth';
import { decel, millimetres, percent } from '../../units/format';
import { force, pressure, spoken, written } from '../../units/shown';
import { kneeOf, kneeStep } from './edits';
import { causesOf, lostOf, pathsOf, roomLeft, shortName } from './instruments';
import { saidBalance, saidTravel } from './said';
import { adhesionTable, balanceTable, feelTable, ratioTable, travelTable, valveTable } from './tables';
import { pathOf, type Size } from './useSize';
import { difference } from './words';

interface ViewProps {
  size: Size;
  height: number;
}
const HEAD = 62;

export const FeelView = memo(function FeelView({ size, height }: ViewProps) {
  const [ref, width] = useWidth<HTMLDivElement>(300);
  const { job, solved, state, look, setup, place, onStep } = size;
  const { view } = job;
  const own = solved.parts.cylinder.bore_mm;
  const dots = useMemo(
    () =>
      solved.bores.flatMap((b): FeelDot[] => {
        const at = b.states[look.load];
        if (!at || at.travel_mm === null) return [];
        return [
          {
            name: b.name,
            bore: b.bore_mm,
            push: at.push_n,
            travel: at.travel_mm,
            own: Math.abs(b.bore_mm - own) < 0.15,
          },
        ];
      }),
    [solved.bores, look.load, own],
  );
  const marks = useMemo(
    () =>
      view.setups.flatMap((s, i): FeelMark[] => {
        const drawn = s.key === setup.key ? setup : s;
        const at = pathOf(drawn, solved.name)?.states[look.load];
        const travel = at?.at_stop?.systems[solved.system]?.pedal_travel_mm;
        if (!at || at.stop_push_n === null || travel === null || travel === undefined) return [];
        const kind = s.key === setup.key ? 'plan' : i === 0 ? 'found' : 'other';
        return [{ name: shortName(s.name), kind, push: at.stop_push_n, travel }];
      }),
    [view.setups, setup, solved.name, solved.system, look.load],
  );
  const room = solved.parts.pedal.available_mm;
  const onBore = useMemo(
    () =>
      solved.lines.length === 1 && solved.parts.cylinder.kind !== 'twin'
        ? (dot: FeelDot) =>
            void onStep({
              label: `bore ${dot.name}`,
              edits: [{ path: `${place.control}.cylinder.bore_mm`, value: dot.name }],
            }).catch(() => undefined)
        : null,
    [solved, onStep, place.control],
  );
  if (marks.length === 0)
    return <p>It needs the pedal’s travel: {(setup.needs['travel'] ?? []).length} more to measure.</p>;
  const wanted = view.wanted_decel_g ?? 0;
  return (
    <>
      <p>
        {difference(solved.against_found[look.load]) ||
          `At ${decel(wanted)} g: ${written(force(state.stop_push_n ?? 0))}.`}
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
            said={`Feel at ${decel(wanted)} g: ${marks.map((m) => `${m.name} ${spoken(force(m.push))}, ${millimetres(m.travel)} millimetres`).join('; ')}.`}
            onBore={onBore}
          />
        </Plotted>
      </div>
    </>
  );
});

export const BalanceView = memo(function BalanceView({ size, height }: ViewProps) {
  const [ref, width] = useWidth<HTMLDivElement>(330);
  const { job, now, state, look, setup, solved, place, onStep, trying, failure } = size;
  const paths = useMemo(
    () => pathsOf(job.view, setup, state, solved.name, look.load),
    [job.view, setup, state, solved.name, look.load],
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
            said={saidBalance(size)}
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

export const TravelView = memo(function TravelView({ size, height }: ViewProps) {
  const [ref, width] = useWidth<HTMLDivElement>(350);
  const { now, solved, state, found, job, setup } = size;
  const room = solved.parts.pedal.available_mm;
  const whole = solved.parts.cylinder.stroke_mm;
  if (now.travel === null) return <p>It still needs: {(setup.needs['travel'] ?? []).join(', ')}.</p>;
  return (
    <>
      <p>
        {room === null
          ? `${millimetres(now.travel)} mm.`
          : `${millimetres(now.travel)} of ${millimetres(room)} mm (${percent(now.travel / room)}), ${roomLeft(room, now.travel)}.`}
      </p>
      <div className="plot" ref={ref}>
        <Plotted table={() => travelTable(causesOf(now), now.travel ?? 0)}>
          <TravelStair
            width={width}
            height={height - HEAD}
            causes={causesOf(now)}
            total={now.travel}
            available={room}
            band={job.view.travel}
            found={found?.now.travel ?? null}
            foundName={size.behind}
            lost={lostOf(state.failures)}
            stroke={whole !== null && now.piston !== null ? { used: now.piston, whole } : null}
            said={saidTravel(size)}
          />
        </Plotted>
      </div>
    </>
  );
});

export const ValveView = memo(function ValveView({ size, height }: ViewProps) {
  const [ref, width] = useWidth<HTMLDivElement>(330);
  const { solved, state, now } = size;
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
            said={`Pressure through the valves: ${lines.map((l) => `${l.name} ${(l.at[1] / 1000).toFixed(2)} of ${(l.at[0] / 1000).toFixed(2)} megapascal`).join('; ')}.`}
          />
        </Plotted>
      </div>
    </>
  );
});

export const AdhesionView = memo(function AdhesionView({ size, height }: ViewProps) {
  const [ref, width] = useWidth<HTMLDivElement>(330);
  const { state, now, job } = size;
  const { curves, balance } = state;
  const of = (list: readonly number[], force: readonly number[]) =>
    curves.decel_g.flatMap((z, i): Point[] => ((force[i] ?? 0) > 0 ? [[z, list[i] ?? 0]] : []));
  const kind = (job.document['vehicle'] as { kind?: string } | undefined)?.kind ?? 'car';
  const more = now.adhesion.rear > now.adhesion.front ? 'rear' : 'front';
  return (
    <>
      <p>
        At {decel(now.decel)} g the front uses {now.adhesion.front.toFixed(2)}, the rear {now.adhesion.rear.toFixed(2)}:
        the {more} nearer to locking. UN R13-H, from memory.
      </p>
      <div className="plot" ref={ref}>
        <Plotted table={() => adhesionTable(curves)}>
          <Adhesion
            width={width}
            height={Math.max(130, height - HEAD - 16)}
            front={of(curves.adhesion_front, curves.front_n)}
            rear={of(curves.adhesion_rear, curves.rear_n)}
            at={{ decel: now.decel, ...now.adhesion }}
            grip={balance.grip_front}
            car={kind === 'car'}
            said={`Adhesion used at ${decel(now.decel)} g: front ${now.adhesion.front.toFixed(2)}, rear ${now.adhesion.rear.toFixed(2)}.`}
          />
        </Plotted>
      </div>
    </>
  );
});

export const RatioView = memo(function RatioView({ size, height }: ViewProps) {
  const [ref, width] = useWidth<HTMLDivElement>(330);
  const { solved, state, now } = size;
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
            said={`Pedal ratio ${at[1].toFixed(2)} at ${millimetres(at[0])} millimetres of travel.`}
          />
        </Plotted>
      </div>
    </>
  );
});

export { HeatView } from './HeatView';
