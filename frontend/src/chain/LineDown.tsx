/** The force line stood on end: it runs down the left, shares out in two at the cylinder, and joins on the road. */
import { memo, type ReactNode } from 'react';
import { Button } from 'react-aria-components';
import styled from 'styled-components';
import type { StationParts } from '../api/types';
import { CaliperSection, caliperHalf, DrumFace, RotorFace, WheelCylinder } from '../drawings/brakes';
import { CylinderSection, Pipe, sidePort, ValveBody } from '../drawings/cylinder';
import { arc, Arrow, Box, Ground, Line, Path, r2, Ring, Words } from '../drawings/ink';
import { Boot, Hand, PedalArm } from '../drawings/pedal';
import { TyreFace } from '../drawings/vehicle';
import { decel, size } from '../units/format';
import {
  dimension,
  force,
  great,
  lengthOf,
  otherPressure,
  pressure,
  torque,
  type Displayed,
  written,
} from '../units/display';
import { FORCE, onAxle, thickness } from './geometry';
import { CylinderFields, PedalFields, PistonFields, RotorFields, ValveFields, type FieldsProps } from './PartFields';
import { boreName, cylinderKind, wasPistons, wasRotors, type PartsProps } from './PartsRow';
import { factors, firstLock, gripUsed, linkNames, sliding } from './words';

const HEIGHTS = [130, 196, 74, 186, 150, 190, 190, 130, 122];
const TOPS = HEIGHTS.map((_, i) => HEIGHTS.slice(0, i).reduce((a, b) => a + b, 0));
const TALL = HEIGHTS.reduce((a, b) => a + b, 0);
const X = { front: 44, rear: 120 };
const WIDE = 158;

const Frame = styled.div`
  display: grid;
  grid-template-columns: ${WIDE}px minmax(0, 1fr);
  > svg {
    width: ${WIDE}px;
    height: ${TALL}px;
  }
`;
const Blocks = styled.ol`
  list-style: none;
  padding: 0;
  margin: 0;
  li {
    border-top: var(--r-hair) solid var(--rule);
    overflow: hidden;
  }
  li:first-child {
    border-top: 0;
  }
  h2 {
    font: var(--w-strong) var(--t-name) / var(--snug) var(--letter);
    display: flex;
    align-items: center;
    gap: var(--s6);
  }
  h2 button {
    border: 0;
    background: none;
    padding: 0;
    min-width: var(--target);
    min-height: var(--target);
    text-align: left;
    color: inherit;
    font: inherit;
    text-decoration: underline;
    text-decoration-color: var(--rule);
    text-underline-offset: var(--s3);
  }
  h2 i {
    font: var(--w-strong) var(--t-note) / var(--one) var(--letter);
    width: var(--s18);
    height: var(--s18);
    border: var(--r-outline) solid var(--ink);
    border-radius: 50%;
    display: grid;
    place-items: center;
  }
  b {
    display: block;
    font: var(--w-strong) var(--t-entry) / var(--snug) var(--letter);
    color: var(--plan);
  }
  b small {
    font: var(--w-firm) var(--t-text) / var(--one) var(--letter);
  }
  p {
    font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
    color: var(--ink-2);
  }
  p[data-was] {
    color: var(--found);
  }
  p[data-danger] {
    color: var(--danger);
  }
`;

const caliperOf = (s: StationParts) => ({
  s: 0.62,
  pistons: s.disc?.pistons_mm ?? [],
  fixed: s.disc?.fixed ?? false,
  thickness: thickness(s),
  vented: s.disc?.vented ?? false,
});
const middle = (i: number) => (TOPS[i] ?? 0) + (HEIGHTS[i] ?? 0) / 2;

function Drawing({ solved, now, found }: PartsProps) {
  const { parts } = solved;
  const pressed = now.push > 0;
  const hand = parts.pedal.kind === 'hand_lever';
  const { pivot_to_pad_mm: a, pivot_to_pin_mm: b } = parts.pedal;
  const k = Math.min(0.34, 100 / a);
  const yP = (TOPS[1] ?? 0) + 40;
  const pivot = X.front - b * k;
  const pad = pivot + a * k;
  const body = (TOPS[3] ?? 0) + 16;
  const push = Math.min(24, (now.piston ?? 0) * 1.1);
  const port = body + sidePort(0, push);
  const yB = middle(5);
  const yR = middle(6);
  const was = found?.solved.parts;
  const share = now.front + now.rear > 0 ? now.front / (now.front + now.rear) : 1;
  const rows = parts.stations.map((s) => ({
    s,
    x: X[s.axle],
    was: was ? onAxle(was, s.axle) : null,
    wide: r2(FORCE * (s.axle === 'front' ? share : 1 - share)),
    on: (now.stations[s.name]?.torque ?? 0) > 0,
    yT: (TOPS[7] ?? 0) + 46,
    tyre: s.rolling_radius_mm * 0.118,
  }));
  const join = (TOPS[8] ?? 0) + 44;
  const meet = (X.front + X.rear) / 2 + 20;
  return (
    <>
      <g transform={`translate(${r2(pivot)},${yP}) rotate(-90) scale(-1,1)`}>
        <PedalArm x={0} y={0} a={a} b={b} s={k} turn={0} tilt={0} />
      </g>
      <Box x={pivot - 14} y={yP - 12} w={5} h={24} as="ground" />
      <Line a={[pivot - 9, yP - 12]} b={[pivot - 9, yP + 12]} as="edge" />
      <Path d={`M${r2(pivot - 9)},${yP - 4}L${r2(pivot)},${yP}L${r2(pivot - 9)},${yP + 4}`} />
      {was && Math.abs(was.pedal.pivot_to_pin_mm - b) > 0.5 && (
        <Ring x={pivot + was.pedal.pivot_to_pin_mm * k} y={yP} r={3.4} as="found-pin" />
      )}
      {pressed ? (
        <>
          <Line a={[pad, 6]} b={[pad, yP - (hand ? 76 : 38)]} as="force" />
          <Arrow x={pad} y={yP - (hand ? 63 : 25)} turn={90} as="plan-area" long={14} half={6.5} />
          <Path d={`M${r2(pad)},${yP}L${X.front},${yP}L${X.front},${r2(body + 14 + push)}`} as="force" />
        </>
      ) : (
        <Line a={[X.front, yP]} b={[X.front, body + 14]} as="edge" />
      )}
      <Ring x={X.front} y={yP} r={4.8} as="edge paper" />
      {hand ? (
        <g transform={`translate(${r2(pad)},${yP}) rotate(90)`}>
          <Hand x={0} y={0} />
        </g>
      ) : (
        <Boot x={pad + 2} y={yP - 7.5} turn={0} k={0.66} />
      )}
      <Path
        d={`M${X.front - 26},${middle(2) - 12}L${X.front - 26},${middle(2)}Q${X.front - 24},${middle(2) + 12} ${X.front - 10},${middle(2) + 13}L${X.front + 10},${middle(2) + 13}Q${X.front + 24},${middle(2) + 12} ${X.front + 26},${middle(2)}L${X.front + 26},${middle(2) - 12}Z`}
        as={parts.booster ? 'edge' : 'phantom'}
      />
      {onAxle(parts, 'rear') && (
        <Pipe
          d={`M${X.front + 12},${port}L${X.rear - 6},${port}Q${X.rear},${port} ${X.rear},${port + 6}L${X.rear},${yB - 40}`}
          wet={pressed}
        />
      )}
      <Pipe d={`M${X.front},${body + 120}L${X.front},${yB - 40}`} wet={pressed} />
      <g transform={`translate(${X.front},${body}) rotate(90) scale(1,-1)`}>
        <CylinderSection
          x={0}
          y={0}
          bore={parts.cylinder.bore_mm * 1.5}
          found={(was?.cylinder.bore_mm ?? 0) * 1.5}
          length={122}
          wall={7}
          push={r2(push)}
          tandem={parts.cylinder.kind === 'tandem'}
          fluid={pressed}
        />
      </g>
      {pressed && <Line a={[X.front, body - 4]} b={[X.front, body + 14 + push]} as="force" />}
      {rows.map(({ s, x }) => (
        <g key={s.name}>
          {(s.axle === 'rear' || s.valve) && <ValveBody x={x} y={(TOPS[4] ?? 0) + 34} present={s.valve !== null} />}
          <g transform={`translate(${x},${(TOPS[4] ?? 0) + 66})`}>
            <Box x={-5} y={0} w={10} h={30} as="edge paper" />
            {[2, 7, 12, 17, 22].map((v) => (
              <Line key={v} a={[-5, v + 5]} b={[5, v]} />
            ))}
          </g>
          <Words x={x + 10} y={(TOPS[4] ?? 0) + 86} as="label">
            {s.axle}
          </Words>
        </g>
      ))}
      {rows.map((r) => (
        <g key={r.s.name}>
          {r.s.disc ? (
            <g transform={`translate(${r.x},${yB}) rotate(90)`}>
              <CaliperSection {...caliperOf(r.s)} x={0} y={0} pressed={r.on} />
            </g>
          ) : (
            <WheelCylinder x={r.x} y={yB} s={0.62} bore={r.s.drum?.wheel_cylinder_mm ?? 0} pressed={r.on} />
          )}
          {r.s.disc ? (
            <g transform={`translate(${r.x},${yR}) rotate(90)`}>
              <RotorFace
                x={0}
                y={0}
                s={0.2}
                diameter={r.s.disc.rotor_diameter_mm}
                padHeight={r.s.disc.pad_height_mm}
                found={r.was?.disc?.rotor_diameter_mm ?? 0}
              />
            </g>
          ) : (
            <DrumFace
              x={r.x}
              y={yR}
              s={0.2}
              diameter={r.s.drum?.drum_diameter_mm ?? 0}
              cylinder={r.s.drum?.wheel_cylinder_mm ?? 0}
            />
          )}
          <Ground x1={r.x - 38} x2={r.x + 36} y={r.yT + r.tyre} />
          <TyreFace x={r.x} y={r.yT} r={r2(r.tyre)} rim={r2(((r.s.rim_mm ?? 380) / 2) * 0.114)} />
          {r.on && <AxleForce {...r} yB={yB} yR={yR} />}
        </g>
      ))}
      {now.decel > 0 && (
        <>
          {rows.map(
            (r) =>
              r.on && (
                <Path
                  key={r.s.name}
                  d={`M${r.x},${r2(r.yT + r.tyre)}L${r.x},${join - 26}C${r.x},${join} ${r.x + (r.x > meet ? -8 : 28)},${r2(r.s.axle === 'front' ? join - 3.5 + 3.5 * share : join + 3.5 - 3.5 * (1 - share))} ${meet},${r2(r.s.axle === 'front' ? join - 3.5 + 3.5 * share : join + 3.5 - 3.5 * (1 - share))}`}
                  as="force"
                  wide={r.wide}
                />
              ),
          )}
          <Path d={`M${meet - 1},${join}L${WIDE - 22},${join}`} as="force" />
          <Arrow x={WIDE - 8} y={join} turn={0} as="plan-area" long={15} half={7} />
        </>
      )}
    </>
  );
}

interface AxleProps {
  s: StationParts;
  x: number;
  wide: number;
  yB: number;
  yR: number;
  yT: number;
  tyre: number;
}
const AxleForce = memo(function AxleForce({ s, x, wide, yB, yR, yT, tyre }: AxleProps) {
  const radius = (s.disc?.effective_radius_mm ?? ((s.drum?.drum_diameter_mm ?? 0) / 2) * 0.9) * 0.2;
  const from = s.disc ? yB + caliperHalf(caliperOf(s)) : yB + 37;
  return (
    <>
      <Path
        d={`M${x},${r2(from)}L${x},${r2(yR - radius)}${arc(x, yR, radius, 270, 390, true)}`}
        as="force"
        wide={wide}
      />
      <Path d={`M${x},${yR}L${x},${r2(yT + tyre)}`} as="force" wide={wide} />
      <Ring x={x} y={yR} r={3.2} as="plan-area" />
      <Ring x={x} y={yT} r={3.2} as="plan-area" />
    </>
  );
});

export interface DownProps extends PartsProps {
  description: string;
  /** Opens the working of a link. */
  onLink: (link: number) => void;
}
export function LineDown({ description, onLink, ...props }: DownProps) {
  const { place, solved, bores, onStep, state, now, found } = props;
  const fields: FieldsProps = { place, solved, bores, onStep };
  const { parts } = solved;
  const front = onAxle(parts, 'front');
  const rear = onAxle(parts, 'rear');
  const f = front ? now.stations[front.name] : undefined;
  const r = rear ? now.stations[rear.name] : undefined;
  const chain = factors(solved, now, state.balance.weight_n).map((rows) => rows.join(', '));
  const slides = sliding(now);
  const inlet = pressure(f?.inlet ?? r?.inlet ?? 0);
  const both = (a: Displayed | null, b: Displayed | null) => (
    <b>
      {a && <small>F </small>}
      {a?.v} {b && <small>R </small>}
      {b?.v} <small>{(a ?? b)?.unit}</small>
    </b>
  );
  const blocks: ReactNode[] = [
    <>
      <b>
        {force(now.push).v} <small>{force(now.push).unit}</small>
      </b>
      {found && <p data-was>as found {written(force(found.now.push))}</p>}
      <p>{props.against}</p>
    </>,
    <>
      <b>
        {force(now.rod).v} <small>{force(now.rod).unit}</small>
      </b>
      <PedalFields {...fields} />
      <p>{chain[1]}</p>
      {found && (
        <p data-was>
          was {size(found.solved.parts.pedal.pivot_to_pad_mm)} : {size(found.solved.parts.pedal.pivot_to_pin_mm)},{' '}
          {written(force(found.now.rod))}
        </p>
      )}
    </>,
    <p key="b">{parts.booster ? `${parts.booster.kind}, ${chain[2]}` : 'none'}</p>,
    <>
      <b>
        {inlet.v} <small>{inlet.unit}</small>
      </b>
      <CylinderFields {...fields} />
      <p>
        {cylinderKind(parts)}, {written(dimension(parts.cylinder.bore_mm))}; {chain[3]}
      </p>
      {now.piston !== null && parts.cylinder.stroke_mm !== null && (
        <p>
          stroke {lengthOf(now.piston, 1).v} of {written(lengthOf(parts.cylinder.stroke_mm))}
        </p>
      )}
      {found && <p data-was>was {boreName(found.solved.parts)}</p>}
    </>,
    <>
      <ValveFields {...fields} />
      <p>
        {[f && `${written(otherPressure(f.outlet))} front`, r && `${written(otherPressure(r.outlet))} rear`]
          .filter(Boolean)
          .join(', ')}
      </p>
    </>,
    <>
      {both(f?.clamp != null ? great(f.clamp) : null, r?.clamp != null ? great(r.clamp) : null)}
      <PistonFields {...fields} />
      {found && <p data-was>was {wasPistons(found.solved)}</p>}
    </>,
    <>
      {both(f ? torque(f.torque) : null, r ? torque(r.torque) : null)}
      <RotorFields {...fields} />
      {found && <p data-was>was {wasRotors(found.solved)}</p>}
    </>,
    <>
      {both(front ? great(now.front) : null, rear ? great(now.rear) : null)}
      <p>{parts.stations[0]?.tyre ?? ''}</p>
      <p>{chain[7]}</p>
    </>,
    <>
      <b>
        {decel(now.decel)} <small>g</small>
      </b>
      <p>{firstLock(state)}</p>
      {slides ? <p data-danger>{slides}</p> : <p>{gripUsed(state)}</p>}
    </>,
  ];
  return (
    <Frame>
      <svg viewBox={`0 0 ${WIDE} ${TALL}`} role="img" aria-label={description}>
        <Drawing {...props} />
      </svg>
      <Blocks>
        {linkNames(parts.pedal.kind, false).map((name, i) => (
          <li key={name} style={{ height: HEIGHTS[i] }}>
            <h2>
              <i>{i + 1}</i>
              <Button onPress={() => onLink(i)} aria-label={`${name}: working`}>
                {name}
              </Button>
            </h2>
            {blocks[i]}
          </li>
        ))}
      </Blocks>
    </Frame>
  );
}
