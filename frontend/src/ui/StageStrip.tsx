/** The seven stages in order, each with its state; those not built yet are plain and unlinked. */
import { memo } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { Mark, type Progress } from './Mark';

export const STAGES = ['Measure', 'Size', 'Fit', 'Build', 'Bleed', 'Bed', 'Prove'] as const;

const Strip = styled.ol`
  display: grid;
  grid-template-columns: repeat(7, minmax(0, 1fr));
  list-style: none;
  padding: 0;
  li {
    border-left: var(--r-hair) solid var(--ink);
    padding: var(--s5) 0 0 var(--s10);
  }
  li:last-child {
    border-right: var(--r-hair) solid var(--ink);
  }
  b {
    font: var(--w-strong) var(--t-head) / var(--tight) var(--letter);
    display: block;
  }
  span {
    font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
    color: var(--ink-2);
    display: flex;
    gap: var(--s5);
    align-items: center;
  }
  li a {
    display: block;
    margin: calc(0px - var(--s5)) 0 0 calc(0px - var(--s10));
    padding: var(--s5) 0 0 var(--s10);
    height: 100%;
    color: inherit;
    text-decoration: none;
  }
  li a:hover {
    background: var(--sunk);
  }
  li[aria-current] {
    background: var(--ink);
    color: var(--paper);
  }
  li[aria-current] span {
    color: var(--paper);
  }
  li[aria-current] .mo {
    stroke: var(--ink);
  }
`;

export type StageName = (typeof STAGES)[number];
/** Stages that are built, and where they are below a job. */
export const BUILT: Partial<Record<StageName, string>> = { Measure: 'measure', Size: 'size' };

interface StripProps {
  job: number;
  stage: StageName;
  progress: Partial<Record<StageName, { state: Progress; words: string }>>;
}
export const StageStrip = memo(function StageStrip({ job, stage, progress }: StripProps) {
  return (
    <Strip className="noprint" aria-label="Stages">
      {STAGES.map((name) => {
        const own = progress[name];
        const where = BUILT[name];
        const inner = (
          <>
            <b>{name}</b>
            <span>
              {where && own ? (
                <>
                  <Mark state={own.state} size={14} />
                  {own.words}
                </>
              ) : (
                'later'
              )}
            </span>
          </>
        );
        return (
          <li key={name} aria-current={name === stage ? 'step' : undefined}>
            {where && name !== stage ? <Link to={`/jobs/${job}/${where}`}>{inner}</Link> : inner}
          </li>
        );
      })}
    </Strip>
  );
});
