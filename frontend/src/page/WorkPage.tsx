/** The page of a stage that is worked through rather than scrubbed: a bar with its name and setup, parts below, as long as they are. */
import { Fragment, type ReactNode } from 'react';
import styled from 'styled-components';
import type { Steps } from '../api/changes';
import type { Job, StageState } from '../api/types';
import { useShown } from '../units/preference';
import { Choose } from '../ui/Choose';
import type { Target } from './Finder';
import { Message } from './Message';
import { Bar, cautions, headings } from './sheet';
import { StagePage } from './StagePage';

const Page = styled.div`
  max-width: var(--sheet-most);
  margin: 0 auto;
  padding: var(--s8) var(--s16);
  zoom: var(--zoom);
  &[data-narrow] {
    padding: 0 var(--s12) var(--s16);
  }
  &[data-narrow] ${Bar} {
    padding-bottom: var(--s8);
  }
  main section {
    min-width: 0;
    padding: var(--s8) 0 var(--s12);
  }
  ${headings}
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
  ${cautions}
`;

interface WorkPageProps {
  job: Job;
  stages: readonly StageState[];
  /** Path of the stage. */
  stage: string;
  title: string;
  /** What the sheet is headed, where it is more than the title. */
  heading?: string;
  /** What stands beside it: how far the work is. */
  said: ReactNode;
  /** The setup that it shows, and how another is chosen. */
  setup?: string;
  onSetup?: (setup: string) => void;
  steps: Steps;
  targets?: readonly Target[];
  /** What else can be had of the page: in its bar, on a phone below all else. */
  tools?: ReactNode;
  cautions: string;
  children: (wide: boolean) => ReactNode;
}
export function WorkPage(props: WorkPageProps) {
  const { job, stages, stage, title, setup, onSetup, steps } = props;
  const units = useShown();
  return (
    <StagePage
      job={job}
      stages={stages}
      stage={stage}
      title={title}
      setup={setup}
      targets={props.targets}
      onUndo={steps.onUndo}
      onRedo={steps.onRedo}
    >
      {(head, wide) => (
        <Page data-narrow={wide ? undefined : ''}>
          {head}
          <main>
            <Bar>
              {/* The head of a phone has said the title already. */}
              {(wide || props.heading !== undefined) && <h1>{props.heading ?? title}</h1>}
              {setup !== undefined && onSetup && job.setups.length > 1 && (
                <Choose
                  label="setup"
                  quiet
                  value={setup}
                  options={job.setups.map((s) => ({ id: s, label: s }))}
                  onChange={onSetup}
                />
              )}
              <p>{props.said}</p>
              {wide && props.tools}
            </Bar>
            {steps.notice && <Message notice={steps.notice} onClose={steps.onClose} />}
            <Fragment key={units}>{props.children(wide)}</Fragment>
            {!wide && props.tools}
          </main>
          <footer>{props.cautions}</footer>
        </Page>
      )}
    </StagePage>
  );
}
