/** The foot or the hand, and the pedal it presses. */
import type { Parts } from '../api/types';
import { Arrow, Ground, Line, Path, r2, Ring, Figure } from '../drawings/ink';
import { Boot, Hand, PedalArm, PedalBracket, pedalPoint } from '../drawings/pedal';
import { force } from '../units/display';
import type { Figures } from './figures';
import { BODY, S, type FoundLine } from './geometry';

const REST = -8;

/** The pedal as it stands: its scale, its turn, and where pivot, pin and pad are. */
export function standing(parts: Parts, travel: number | null, y: number) {
  const { pivot_to_pad_mm: a, pivot_to_pin_mm: b } = parts.pedal;
  const k = Math.min(S.pedal, 128 / a);
  const turn = REST + (((travel ?? 0) / a) * 180) / Math.PI;
  const x = 162;
  const pivotY = y - b * k * Math.cos((turn * Math.PI) / 180);
  return { k, turn, x, pivotY, pin: pedalPoint(x, pivotY, b * k, turn), pad: pedalPoint(x, pivotY, a * k, turn) };
}

interface FootProps {
  parts: Parts;
  now: Figures;
  found: FoundLine | null;
  /** Level of the rod. */
  y: number;
  /** Where the rod meets the piston when nothing is pressed. */
  rodTo: number;
}
export function FootAndPedal({ parts, now, found, y, rodTo }: FootProps) {
  const { pivot_to_pad_mm: a, pivot_to_pin_mm: b } = parts.pedal;
  const hand = parts.pedal.kind === 'hand_lever';
  const { k, turn, x, pivotY, pin, pad } = standing(parts, now.travel, y);
  const was = found?.solved.parts.pedal.pivot_to_pin_mm;
  const old = was && Math.abs(was - b) > 0.5 ? pedalPoint(x, pivotY, was * k, turn) : null;
  const rodEnd = rodTo + (now.piston ?? 0) * S.cylinder;
  const pressed = now.push > 0;
  return (
    <>
      <PedalBracket x={x} y={pivotY} />
      <PedalArm x={x} y={pivotY} a={a} b={b} s={k} turn={REST} phantom />
      <PedalArm x={x} y={pivotY} a={a} b={b} s={k} turn={turn} />
      <Ring x={x} y={pivotY} r={3} as="edge paper" />
      {!hand && <Ground x1={0} x2={214} y={206} />}
      {old && <Line a={[old[0] + 4, old[1]]} b={[BODY.x + 22, old[1]]} as="found" />}
      {pressed && (
        <>
          <Line a={[2, pad[1]]} b={[pad[0] - 40, pad[1]]} as="force" />
          <Arrow x={pad[0] - 76} y={pad[1]} turn={0} as="plan-area" long={14} half={6.5} />
          <Path
            d={`M${r2(pad[0])},${r2(pad[1] + 1)}L${r2(pin[0])},${r2(pin[1])}L${r2(rodEnd - 3)},${r2(pin[1])}`}
            as="force"
          />
          <Ring x={pad[0]} y={pad[1]} r={4} as="plan-area" />
        </>
      )}
      {!pressed && <Line a={[pin[0], pin[1]]} b={[rodEnd, pin[1]]} as="edge" />}
      {old && <Ring x={old[0]} y={old[1]} r={3.4} as="found-pin" />}
      <Ring x={pin[0]} y={pin[1]} r={4.8} as="edge paper" />
      {hand ? <Hand x={pad[0]} y={pad[1]} /> : <Boot x={pad[0] - 9} y={pad[1] - 5.5} turn={-42} k={0.6} />}
      <Figure x={0} y={Math.min(pad[1] - 13, 196)} as="hero" {...force(now.push)} />
    </>
  );
}
