/** A chance as a bar on a root scale, with the steps between good, note, caution and danger. */
import styled from 'styled-components';
import type { Level } from './Mark';

/** Where one level ends and the next begins, of 100: as the server judges. */
const STEPS = [2, 10, 30] as const;
const at = (percent: number) => Math.sqrt(percent / 100);

const Frame = styled.svg`
  display: inline-block;
  vertical-align: -1px;
  margin-right: var(--s6);
  .frame {
    fill: none;
    stroke: var(--ink);
  }
  .step {
    stroke: var(--ink);
  }
  .fill {
    fill: var(--good);
  }
  &[data-level='note'] .fill {
    fill: var(--note);
  }
  &[data-level='caution'] .fill {
    fill: var(--caution);
  }
  &[data-level='danger'] .fill {
    fill: var(--danger);
  }
`;

interface ChanceProps {
  /** From 0 to 1. */
  chance: number;
  level: Level;
  width?: number;
}
export function ChanceBar({ chance, level, width = 58 }: ChanceProps) {
  const inside = width - 1;
  return (
    <Frame width={width} height={10} data-level={level} aria-hidden="true">
      <rect className="fill" x={0.5} y={0.5} width={inside * Math.sqrt(chance)} height={9} />
      <rect className="frame" x={0.5} y={0.5} width={inside} height={9} />
      {STEPS.map((step) => (
        <line key={step} className="step" x1={0.5 + inside * at(step)} x2={0.5 + inside * at(step)} y1={0} y2={10} />
      ))}
    </Frame>
  );
}

/** "31 %", "under 1 %": in whole per cents, as trials tell no more. */
export function percent(chance: number): string {
  if (chance < 0.005) return 'under 1 %';
  return chance > 0.995 ? 'over 99 %' : `${Math.round(chance * 100)} %`;
}
