/** Findings: danger first; one sentence, one reason, and the mend that can be tried with one press. */
import { memo } from 'react';
import { Button } from 'react-aria-components';
import styled from 'styled-components';
import type { Finding } from '../../api/types';
import { Mark } from '../../ui/Mark';
import { counted } from '../../units/format';

const List = styled.ul`
  list-style: none;
  padding: 0;
  margin: var(--s4) 0 0;
  border-top: var(--r-hair) solid var(--ink);
  li {
    display: grid;
    grid-template-columns: var(--s22) minmax(0, 1fr) auto;
    padding: var(--s5) 0;
    border-top: var(--r-hair) solid var(--rule);
  }
  li:first-child {
    border-top: 0;
  }
  .mark {
    grid-row: 1 / 3;
  }
  .sentence {
    grid-column: 2 / 4;
  }
  .reason {
    color: var(--ink-2);
    align-self: center;
  }
`;
const Word = styled.span`
  font: var(--w-strong) var(--t-note) / var(--tight) var(--letter);
  letter-spacing: var(--track);
  margin-right: var(--s6);
  text-transform: uppercase;
  &[data-level='good'] {
    color: var(--good);
  }
  &[data-level='note'] {
    color: var(--note);
  }
  &[data-level='caution'] {
    color: var(--caution);
  }
  &[data-level='danger'] {
    color: var(--on-state);
    background: var(--danger);
    padding: 0 var(--s5);
  }
`;
export const MendButton = styled(Button)`
  font: var(--w-strong) var(--t-text) / var(--one) var(--text);
  border: var(--r-outline) solid var(--plan);
  background: none;
  padding: 0 var(--s8);
  color: var(--plan);
  white-space: nowrap;
  margin-left: var(--s10);
  min-height: var(--s24);
  align-self: center;
  &[data-pressed] {
    background: var(--sunk);
  }
  @media (pointer: coarse) {
    min-height: var(--target);
    font-size: var(--t-head);
  }
  @media print {
    display: none;
  }
`;

export const LevelWord = ({ level }: { level: Finding['level'] }) => <Word data-level={level}>{level}</Word>;

/** "1 danger, 2 cautions, 1 good": how the findings stand. */
export function tally(findings: readonly Finding[]): string {
  const countOf = (level: Finding['level']) => findings.filter((f) => f.level === level).length;
  const words: [number, string, string][] = [
    [countOf('danger'), 'danger', 'dangers'],
    [countOf('caution'), 'caution', 'cautions'],
    [countOf('note'), 'note', 'notes'],
    [countOf('good'), 'good', 'good'],
  ];
  return words
    .filter(([n]) => n > 0)
    .map(([n, one, many]) => counted(n, one, many))
    .join(', ');
}

export interface FindingsProps {
  findings: readonly Finding[];
  onMend: (finding: Finding) => void;
}
/** Only mends that change something have a button; a thing to look at is already drawn in the travel. */
export const Findings = memo(function Findings({ findings, onMend }: FindingsProps) {
  return (
    <List>
      {findings.map((finding) => (
        <li key={finding.id}>
          <Mark state={finding.level} size={16} />
          <p className="sentence">
            <LevelWord level={finding.level} />
            {finding.sentence}
          </p>
          <p className="reason">{finding.reason}</p>
          {finding.mend && finding.mend.edits.length > 0 && (
            <MendButton onPress={() => onMend(finding)}>{finding.mend.label}</MendButton>
          )}
        </li>
      ))}
    </List>
  );
});
