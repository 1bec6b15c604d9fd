/** The head of a stage on a phone: which stage, undo and redo, and the way to the other stages. */
import { useState, type ReactNode } from 'react';
import { Button } from 'react-aria-components';
import { Link } from 'react-router';
import styled from 'styled-components';
import type { Job } from '../api/types';
import { REDO, ThemeButton, UNDO } from './SheetTop';
import { BUILT, STAGES, type StageName } from './StageStrip';

const Head = styled.header`
  display: flex;
  align-items: center;
  gap: var(--s10);
  min-height: var(--ph-head);
  border-bottom: var(--r-heavy) solid var(--ink);
  flex: none;
  h1 {
    font: var(--w-most) var(--t-entry) / var(--one) var(--letter);
  }
  > .wide {
    display: none;
  }
  @media (min-width: 600px) {
    > .wide {
      display: flex;
      flex: none;
    }
  }
  > span:first-of-type {
    flex: 1;
    font: var(--w-firm) var(--t-head) / var(--one) var(--letter);
    color: var(--ink-2);
    white-space: nowrap;
  }
  button {
    width: var(--target);
    height: var(--target);
    border: 0;
    background: none;
    padding: 0;
    display: grid;
    place-items: center;
  }
  button[data-disabled] {
    opacity: 0.35;
  }
  path {
    stroke: var(--ink);
    stroke-width: var(--r-mark);
    stroke-linecap: round;
    stroke-linejoin: round;
  }
  a {
    color: inherit;
    min-height: var(--target);
    display: grid;
    place-items: center;
    text-underline-offset: var(--s3);
  }
`;
export const Go = styled(Button)`
  border: 0;
  background: none;
  padding: 0 var(--s2);
  min-height: var(--target);
  text-decoration: underline;
  text-underline-offset: var(--s3);
  white-space: nowrap;
`;
const Stages = styled.ol`
  flex: none;
  list-style: none;
  margin: 0;
  padding: var(--s6) 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  border-bottom: var(--r-hair) solid var(--ink);
  li {
    min-height: var(--target);
    display: flex;
    align-items: center;
    color: var(--ink-2);
  }
  li a {
    color: var(--ink);
    display: flex;
    align-items: center;
    min-height: var(--target);
  }
  li[aria-current] {
    color: var(--ink);
    font-weight: var(--w-strong);
  }
`;

interface PhoneHeadProps {
  job: Job;
  stage: StageName;
  onUndo: () => void;
  onRedo: () => void;
  children?: ReactNode;
}
export function PhoneHead({ job, stage, onUndo, onRedo, children }: PhoneHeadProps) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Head>
        <h1>{stage}</h1>
        <span>{STAGES.indexOf(stage) + 1} of 7</span>
        <span className="wide">{children}</span>
        <ThemeButton />
        <Button aria-label="Undo" isDisabled={!job.can_undo} onPress={onUndo}>
          <svg width="16" height="16" aria-hidden="true">
            <path d={UNDO} />
          </svg>
        </Button>
        <Button aria-label="Redo" isDisabled={!job.can_redo} onPress={onRedo}>
          <svg width="16" height="16" aria-hidden="true">
            <path d={REDO} />
          </svg>
        </Button>
        <Go aria-expanded={open} onPress={() => setOpen(!open)}>
          stages
        </Go>
      </Head>
      {open && (
        <nav aria-label="Stages">
          <Stages>
            {STAGES.map((name, i) => {
              const where = BUILT[name];
              return (
                <li key={name} aria-current={name === stage ? 'step' : undefined}>
                  {where && name !== stage ? (
                    <Link to={`/jobs/${job.id}/${where}`}>
                      {i + 1} {name}
                    </Link>
                  ) : (
                    `${i + 1} ${name}${where ? '' : ', later'}`
                  )}
                </li>
              );
            })}
            <li>
              <Link to="/">All jobs</Link>
            </li>
          </Stages>
        </nav>
      )}
    </>
  );
}
