/** The worst danger and what would mend it, in one line above the force line: where there is little height. */
import { memo } from 'react';
import styled from 'styled-components';
import type { Finding, Mend } from '../../api/types';
import { ChanceBar, percent } from '../../ui/ChanceBar';
import { Mark } from '../../ui/Mark';
import { LevelWord, TryIt } from './Findings';
import { inChosenUnits } from '../../units/sentences';

const Strip = styled.div`
  display: flex;
  align-items: center;
  gap: var(--s8);
  min-height: 34px;
  border-bottom: var(--r-heavy) solid var(--danger);
  white-space: nowrap;
  p {
    min-width: 0;
    overflow: hidden;
    text-overflow: ellipsis;
    font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
  }
  > p:first-of-type {
    flex: none;
    max-width: 60%;
  }
  > p ~ p {
    flex: 1 1 0;
    text-align: right;
    color: var(--ink-2);
  }
  @media (max-width: 1340px) {
    > p ~ p {
      visibility: hidden;
    }
  }
`;

const SHORT = 90; // letters that stand beside the finding without being cut

interface WorstProps {
  findings: readonly Finding[];
  onMend: (mend: Mend) => void;
}
export const Worst = memo(function Worst({ findings, onMend }: WorstProps) {
  const danger = findings.find((f) => f.level === 'danger');
  if (!danger) return null;
  const [mend] = danger.mends;
  return (
    <Strip role="region" aria-label="The worst finding">
      <Mark state="danger" size={16} />
      <LevelWord finding={danger} />
      <p title={inChosenUnits(danger.sentence)}>{inChosenUnits(danger.sentence)}</p>
      {danger.chance !== null && (
        <span>
          {percent(danger.chance)} <ChanceBar chance={danger.chance} level="danger" />
        </span>
      )}
      <p>{mend && mend.words.length <= SHORT ? inChosenUnits(mend.words) : ''}</p>
      {mend && <TryIt mend={mend} onMend={onMend} />}
    </Strip>
  );
});
