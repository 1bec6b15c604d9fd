/** The head of a stage on a phone: which stage, undo and redo, and the way to the other stages. */
import { useState } from 'react';
import { Button } from 'react-aria-components';
import { Link } from 'react-router';
import styled from 'styled-components';
import { REDO, SkipToSheet, ThemeButton, UNDO, undoes, type HeadProps } from './SheetTop';

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
  /* The narrowest there are: the list of stages counts them too. */
  @media (max-width: 359px) {
    gap: var(--s4);
    > span:first-of-type {
      min-width: 0;
      overflow: hidden;
      visibility: hidden;
    }
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

export function PhoneHead({ job, stage, stages, title, onUndo, onRedo, children }: HeadProps) {
  const [open, setOpen] = useState(false);
  const at = stages.findIndex((s) => s.path === stage);
  return (
    <>
      <Head>
        <SkipToSheet />
        <h1>{title}</h1>
        <span>{at >= 0 && `${at + 1} of ${stages.length}`}</span>
        <span className="wide">{children}</span>
        <ThemeButton />
        <Button {...undoes('Undo', job.undo)} onPress={onUndo}>
          <svg width="16" height="16" aria-hidden="true">
            <path d={UNDO} />
          </svg>
        </Button>
        <Button {...undoes('Redo', job.redo)} onPress={onRedo}>
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
            {stages.map(({ title: name, path }, i) => (
              <li key={name} aria-current={path === stage ? 'step' : undefined}>
                {path !== null && path !== stage ? (
                  <Link to={`/jobs/${job.id}/${path}`}>
                    {i + 1} {name}
                  </Link>
                ) : (
                  `${i + 1} ${name}${path === null ? ', later' : ''}`
                )}
              </li>
            ))}
            <li>
              <Link to="/">All jobs</Link>
            </li>
            <li>
              <a href={`/api/jobs/${job.id}/file`} download>
                Save as a file
              </a>
            </li>
          </Stages>
        </nav>
      )}
    </>
  );
}
