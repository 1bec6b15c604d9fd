/** The sheet of a stage that is worked through rather than scrubbed: a bar with its name and setup, parts below, as long as they are. */
import { Fragment, type ReactNode } from 'react';
import styled from 'styled-components';
import type { Steps } from '../api/changes';
import { useShown } from '../units/preference';
import { Choose } from '../ui/Choose';
import { Message } from './Message';

const Page = styled.div`
  max-width: var(--sheet-most);
  margin: 0 auto;
  padding: var(--s8) var(--s16);
  zoom: var(--zoom);
  &[data-narrow] {
    padding: 0 var(--s12) var(--s16);
  }
  main section {
    min-width: 0;
    padding: var(--s8) 0 var(--s12);
  }
  h2 {
    font: var(--w-strong) var(--t-head) / var(--snug) var(--letter);
  }
  h2 em {
    font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
    color: var(--ink-2);
    font-style: normal;
    padding-left: var(--s6);
  }
  h3 {
    font: var(--w-strong) var(--t-name) / var(--snug) var(--letter);
  }
  p {
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
  }
  .quiet {
    color: var(--ink-2);
  }
  @media (pointer: coarse) {
    a[download] {
      display: inline-flex;
      align-items: center;
      min-height: var(--target);
      min-width: var(--target);
    }
  }
  @media print {
    main form {
      display: none; /* what is only filled in to add something */
    }
    .main,
    .side {
      display: block !important; /* a grid within a grid is laid over itself where a page ends */
    }
    h2,
    h3 {
      break-after: avoid;
    }
    svg,
    tr,
    li,
    p {
      break-inside: avoid;
    }
    footer {
      break-before: avoid;
    }
  }
  footer {
    color: var(--ink-2);
    font-size: var(--t-note);
    border-top: var(--r-hair) solid var(--ink);
    padding-top: var(--s4);
  }
`;
const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: var(--s4) var(--s18);
  align-items: center;
  min-height: 40px;
  padding: var(--s4) 0;
  border-bottom: var(--r-hair) solid var(--ink);
  h1 {
    font: var(--w-strong) var(--t-head) / var(--one) var(--letter);
  }
  > p {
    flex: 1;
    min-width: 200px;
  }
`;

interface WorkSheetProps {
  head: ReactNode;
  wide: boolean;
  title: string;
  /** What stands beside the title: how far the work is. */
  said?: ReactNode;
  setup?: string;
  setups?: readonly string[];
  onSetup?: (setup: string) => void;
  steps: Steps;
  tools?: ReactNode;
  cautions: string;
  children: ReactNode;
}
export function WorkSheet(props: WorkSheetProps) {
  const { head, wide, title, said, setup, setups, onSetup, steps, tools, cautions, children } = props;
  return (
    <Page data-narrow={wide ? undefined : ''}>
      {head}
      <main>
        <Bar>
          <h1>{title}</h1>
          {setup !== undefined && setups !== undefined && setups.length > 1 && onSetup && (
            <Choose
              label="setup"
              quiet
              value={setup}
              options={setups.map((s) => ({ id: s, label: s }))}
              onChange={onSetup}
            />
          )}
          <p>{said}</p>
          {tools}
        </Bar>
        {steps.notice && <Message notice={steps.notice} onClose={steps.onClose} />}
        <Fragment key={useShown()}>{children}</Fragment>
      </main>
      <footer>{cautions}</footer>
    </Page>
  );
}
