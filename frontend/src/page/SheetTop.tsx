/** The head of every sheet: the name, the stages, and the tools. */
import { memo, type ReactNode } from 'react';
import { Button } from 'react-aria-components';
import { Link } from 'react-router';
import styled from 'styled-components';
import type { Job, StageState } from '../api/types';
import { useTheme } from '../ui/theme';
import { StageStrip } from './StageStrip';
import { Wordmark } from './Wordmark';

const Top = styled.header`
  display: grid;
  grid-template-columns: var(--col-word) minmax(0, 1fr) var(--col-tools);
  min-height: var(--row-strip);
  border-bottom: var(--r-heavy) solid var(--ink);
  > .skip {
    grid-column: 1 / -1;
  }
  > a {
    display: flex;
    align-items: center;
    text-decoration: none;
    color: inherit;
  }
`;
const Tools = styled.div`
  display: flex;
  justify-content: flex-end;
  align-items: center;
  gap: var(--s2);
  button,
  > a {
    height: var(--s30);
    min-width: var(--s30);
    border: 0;
    background: none;
    padding: 0 var(--s5);
    display: inline-flex;
    align-items: center;
    justify-content: center;
    gap: var(--s4);
    white-space: nowrap;
    color: inherit;
    font: var(--w-firm) var(--t-text) / var(--one) var(--text);
  }
  > a {
    text-underline-offset: var(--s3);
  }
  em {
    font-style: normal;
    color: var(--ink-2);
  }
  button[data-disabled] {
    opacity: 0.35;
  }
  kbd {
    font: var(--w-firm) var(--t-note) / var(--snug) var(--letter);
    border: var(--r-hair) solid var(--ink-2);
    padding: 0 var(--s4);
    color: var(--ink-2);
  }
  path {
    stroke: var(--ink);
    stroke-width: var(--r-mark);
    stroke-linecap: round;
    stroke-linejoin: round;
  }
`;
const OnPaper = styled.p`
  align-self: center;
  padding-left: var(--s14);
  font: var(--w-strong) var(--t-head) / var(--snug) var(--letter);
  small {
    font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
    padding-left: var(--s18);
  }
`;
export const UNDO = 'M3,6L10,6A4,4 0 0 1 10,14L6,14M6,2.5L2.5,6L6,9.5';
export const REDO = 'M13,6L6,6A4,4 0 0 0 6,14L10,14M10,2.5L13.5,6L10,9.5';
const Glyph = ({ d }: { d: string }) => (
  <svg width="16" height="16" aria-hidden="true">
    <path d={d} />
  </svg>
);

/** What a button of undo or redo says: the step that it takes back or makes again. */
export const undoes = (word: 'Undo' | 'Redo', step: string | null) => ({
  'aria-label': step === null ? word : `${word}: ${step}`,
  isDisabled: step === null,
  render: (props: object) => <button {...props} title={step === null ? undefined : `${word}: ${step}`} />,
});
export function ThemeButton() {
  const [theme, toggle] = useTheme();
  return (
    <Button onPress={toggle} aria-label={theme === 'dark' ? 'Light drawing' : 'Dark drawing'}>
      <Glyph
        d={
          theme === 'dark'
            ? 'M8,5A3,3 0 1 1 8,11A3,3 0 1 1 8,5M8,1L8,2M8,14L8,15M1,8L2,8M14,8L15,8'
            : 'M12,10A5.5,5.5 0 1 1 6,3A4.5,4.5 0 0 0 12,10Z'
        }
      />
    </Button>
  );
}

export interface HeadProps {
  job: Job;
  stages: readonly StageState[];
  /** Path of the stage that is marked. */
  stage: string;
  /** Name of the page. */
  title: string;
  /** The setup that it shows, for the paper. */
  setup?: string;
  onUndo: () => void;
  onRedo: () => void;
  children?: ReactNode;
}
/** To the sheet itself, past what stands on every page. */
export function SkipToSheet() {
  const go = () => {
    const main = document.querySelector('main');
    if (!main) return;
    main.tabIndex = -1;
    main.focus();
  };
  return (
    <button type="button" className="skip noprint" onClick={go}>
      To the sheet
    </button>
  );
}

export const SheetTop = memo(function SheetTop({
  job,
  stage,
  stages,
  title,
  setup,
  onUndo,
  onRedo,
  children,
}: HeadProps) {
  return (
    <Top>
      <SkipToSheet />
      <Link to="/" aria-label="Kobrix, all jobs">
        <Wordmark />
      </Link>
      <OnPaper className="onpaper">
        {job.name}: {title}
        {setup !== undefined && `, ${setup}`}
        <small>{new Date().toLocaleDateString(undefined, { dateStyle: 'medium' })}</small>
      </OnPaper>
      <StageStrip job={job.id} stage={stage} stages={stages} />
      <Tools className="noprint">
        <Link to="/">Jobs</Link>
        {children}
        <ThemeButton />
        <Button {...undoes('Undo', job.undo)} onPress={onUndo}>
          <Glyph d={UNDO} />
        </Button>
        <Button {...undoes('Redo', job.redo)} onPress={onRedo}>
          <Glyph d={REDO} />
        </Button>
      </Tools>
    </Top>
  );
});
