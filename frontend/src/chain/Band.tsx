/** The band under the line: a shoulder where each change bought something, as found level or matched at the foot. */
import { memo } from 'react';
import { Box, Line, Path, r2, Tag, Words } from '../drawings/ink';
import type { BandSide, Gain, Match } from './gains';
import { ENDS, WIDTH } from './geometry';

export const BAND = 36;

interface BandProps {
  /** Null where the two cannot be compared. */
  gains: readonly Gain[] | null;
  match: Match;
  side: BandSide;
  name: string;
  y: number;
}
const WORDS: Record<BandSide, string> = { front: 'front', rear: 'rear', whole: 'whole' };

const LETTERS = 15;
interface NamedProps {
  x: number;
  high: number;
  bottom: number;
  words: string;
}
/** The name of a step: in it, or on it where it is too low for letters. */
const Named = memo(function Named({ x, high, bottom, words }: NamedProps) {
  if (high < LETTERS)
    return (
      <Tag x={x} y={r2(bottom - high - 5)} as="label-gain">
        {words}
      </Tag>
    );
  return (
    <Words x={x} y={bottom - 4} as="label-gain">
      {words}
    </Words>
  );
});

export function Band({ gains, match, side, name, y }: BandProps) {
  const bottom = y + BAND;
  if (gains === null) {
    return (
      <Words x={0} y={bottom - 6} as="label-quiet">
        What each change bought cannot be drawn at this push: one of the two does not brake there.
      </Words>
    );
  }
  const steps: { x: number; height: number; name: string; gain: number }[] = [];
  let product = 1;
  for (const g of gains) {
    product *= g.gain;
    steps.push({ x: (ENDS[g.link] ?? 0) + 2, height: product, name: g.name, gain: g.gain });
  }
  const most = Math.max(1, ...steps.map((s) => s.height));
  const unit = BAND / most;
  const H = (v: number) => r2(bottom - v * unit);
  let d = `M0,${bottom}L0,${H(1)}`;
  for (const s of steps) d += `L${s.x},${H(s.height / s.gain)}L${s.x},${H(s.height)}`;
  d += `L${WIDTH},${H(product)}L${WIDTH},${bottom}Z`;
  // Matched at the road as found stands as high as the plan ends; matched at the foot, as high as it begins.
  const level = match === 'stop' ? product : 1;
  return (
    <>
      {level > 1 && <Box x={0} y={H(level)} w={WIDTH} h={bottom - H(level)} as="push-saved" />}
      <Path d={d} as="step" />
      <Line a={[0, H(level)]} b={[WIDTH, H(level)]} as="found" />
      <Named x={9} high={unit} bottom={bottom} words={name} />
      {steps.map((s) => (
        <Named
          key={s.name}
          x={s.x + 9}
          high={s.height * unit}
          bottom={bottom}
          words={`${s.name} × ${s.gain.toFixed(2)}`}
        />
      ))}
      <Words x={WIDTH - 8} y={bottom - 4} as="label-gain" at="end">
        {steps.length === 0
          ? `nothing changed at the ${WORDS[side]}`
          : `= ${product.toFixed(2)} times the ${WORDS[side]} brake for the same push`}
      </Words>
    </>
  );
}
