/** The stages in order, each with its state as the server has it; those not built yet are plain and unlinked. */
import { memo } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import type { StageState } from '../api/types';
import { Mark } from '../ui/Mark';
import { LOW } from '../ui/useMedia';

const Strip = styled.ol`
  display: flex;
  list-style: none;
  padding: 0;
  li {
    flex: 1 1 0;
    min-width: 0;
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
  /* Not open yet: there, and out of the way. */
  li[data-later] {
    flex: none;
    padding-right: var(--s8);
    padding-left: var(--s8);
    color: var(--ink-2);
  }
  li[data-later] b {
    font: var(--w-firm) var(--t-text) / var(--snug) var(--letter);
  }
  li[aria-current] {
    background: var(--ink);
    color: var(--paper);
  }
  li[aria-current] span {
    color: var(--paper);
  }
  li[aria-current] .mark-sign {
    stroke: var(--ink);
  }
  /* With every stage open a low laptop has room for each name and its mark; the words are its title. */
  @media ${LOW} and (max-width: 1599px) {
    i {
      display: none;
    }
  }
  @media ${LOW} {
    li,
    li a {
      display: flex;
      align-items: center;
      gap: var(--s8);
      padding-top: 0;
    }
    li a {
      flex: 1;
      margin-top: 0;
    }
  }
  span {
    min-width: 0;
  }
  .mark {
    flex: none;
  }
  i {
    font-style: normal;
    white-space: nowrap;
    overflow: hidden;
    text-overflow: ellipsis;
    min-width: 0;
  }
`;

interface StripProps {
  job: number;
  /** Path of the stage that is marked. */
  stage: string;
  stages: readonly StageState[];
}
export const StageStrip = memo(function StageStrip({ job, stage, stages }: StripProps) {
  return (
    <Strip className="noprint" aria-label="Stages">
      {stages.map(({ title, path, state, words }) => {
        const inner = (
          <>
            <b>{title}</b>
            <span>
              {state !== 'later' && <Mark state={state} size={14} />}
              <i>{words}</i>
            </span>
          </>
        );
        return (
          <li
            key={title}
            title={words}
            data-later={state === 'later' || undefined}
            aria-current={path === stage ? 'step' : undefined}
          >
            {path !== null && path !== stage ? <Link to={`/jobs/${job}/${path}`}>{inner}</Link> : inner}
          </li>
        );
      })}
    </Strip>
  );
});
