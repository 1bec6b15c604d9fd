/** Size on a laptop: one sheet, the line across it, the instruments beneath. */
import { memo, useDeferredValue } from 'react';
import { Button, ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import { Link } from 'react-router';
import styled from 'styled-components';
import type { Job } from '../../api/client';
import { PushRule } from '../../charts/PushRule';
import { StageStrip } from '../../ui/StageStrip';
import { Wordmark } from '../../ui/Wordmark';
import { useTheme } from '../../ui/theme';
import { ForceLine } from './ForceLine';
import { Message } from './Message';
import { BalancePanel, FindingsPanel, TravelPanel } from './Panels';
import { PartsRow } from './PartsRow';
import { PlanTabs } from './PlanTabs';
import { PushEntry } from './PushEntry';
import { ruleOf } from './rule';
import { saidLine } from './said';
import { TitleBlock } from './TitleBlock';
import type { Size } from './useSize';
import { difference } from './words';

const Sheet = styled.div`
  zoom: var(--zoom);
  max-width: var(--sheet-most);
  height: calc(100vh / var(--zoom));
  min-height: 640px;
  margin: 0 auto;
  padding: var(--s8) var(--s16);
  display: grid;
  grid-template-rows: var(--row-strip) var(--row-ctl) minmax(0, 1fr) auto;
  @media print {
    height: auto;
  }
`;
const Top = styled.header`
  display: grid;
  grid-template-columns: var(--col-word) minmax(0, 1fr) var(--col-tools);
  border-bottom: var(--r-heavy) solid var(--ink);
  a {
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
  button {
    height: var(--s30);
    min-width: var(--s30);
    border: 0;
    background: none;
    padding: 0 var(--s5);
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
`;
const Control = styled.div`
  display: grid;
  grid-template-columns: minmax(0, auto) auto minmax(420px, 1fr);
  border-bottom: var(--r-hair) solid var(--ink);
`;
const Main = styled.main`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
`;
const Line = styled.section`
  position: relative;
  border-bottom: var(--r-heavy) solid var(--ink);
`;
const Same = styled.div`
  position: absolute;
  left: 0;
  top: var(--s30);
  width: var(--switch-w);
  > p {
    color: var(--found);
    padding-bottom: var(--s3);
  }
  > div {
    display: grid;
  }
  button {
    height: var(--s24);
    border: var(--r-outline) solid var(--ink);
    background: var(--paper);
    text-align: left;
    padding: 0 var(--s8);
    font: var(--w-firm) var(--t-text) / var(--one) var(--text);
  }
  button + button {
    border-top: 0;
  }
  button[data-selected] {
    background: var(--ink);
    color: var(--paper);
  }
`;
const Instruments = styled.div`
  display: grid;
  grid-template-columns: var(--inst);
  min-height: 0;
  @media print {
    section {
      overflow: visible;
    }
  }
`;
const Caution = styled.p`
  color: var(--ink-2);
  padding-top: var(--s4);
  font-size: var(--t-note);
`;

export const UNDO = 'M3,6L10,6A4,4 0 0 1 10,14L6,14M6,2.5L2.5,6L6,9.5';
export const REDO = 'M13,6L6,6A4,4 0 0 0 6,14L10,14M10,2.5L13.5,6L10,9.5';
const Glyph = ({ d }: { d: string }) => (
  <svg width="16" height="16" aria-hidden="true">
    <path d={d} />
  </svg>
);

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

interface StepsProps {
  job: Job;
  onUndo: () => void;
  onRedo: () => void;
}
const Steps = memo(function Steps({ job, onUndo, onRedo }: StepsProps) {
  return (
    <Tools className="noprint">
      <ThemeButton />
      <Button aria-label="Undo" isDisabled={!job.can_undo} onPress={onUndo}>
        <Glyph d={UNDO} />
      </Button>
      <Button aria-label="Redo" isDisabled={!job.can_redo} onPress={onRedo}>
        <Glyph d={REDO} />
      </Button>
    </Tools>
  );
});

interface MatchProps {
  match: 'stop' | 'push';
  onMatch: (match: 'stop' | 'push') => void;
}
/** Where as found is matched with the plan: at the road, or at the foot. */
const Match = memo(function Match({ match, onMatch }: MatchProps) {
  return (
    <Same className="noprint">
      <p id="same">As found, at</p>
      <ToggleButtonGroup
        aria-labelledby="same"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={[match]}
        onSelectionChange={(keys) => onMatch(keys.has('push') ? 'push' : 'stop')}
      >
        <ToggleButton id="stop">the same stop</ToggleButton>
        <ToggleButton id="push">the same push</ToggleButton>
      </ToggleButtonGroup>
    </Same>
  );
});

export function SizeSheet({ size }: { size: Size }) {
  const { job, setup, solved, state, look, now, found } = size;
  const { view } = job;
  // While the push is scrubbed the line comes first; the instruments follow one frame behind it.
  const later = useDeferredValue(size);
  const against = difference(solved.against_found[look.load]);
  return (
    <Sheet>
      <Top>
        <Link to="/" aria-label="Kobrix, all jobs">
          <Wordmark />
        </Link>
        <StageStrip progress={setup.level === 'danger' || setup.level === 'caution' ? 'begun' : 'ready'} />
        <Steps job={job} onUndo={size.onUndo} onRedo={size.onRedo} />
      </Top>
      <Control role="region" aria-label="Plans and push">
        <PlanTabs setups={view.setups} using={setup.key} onUse={size.onUse} />
        <PushEntry push={now.push} decel={now.decel} onPush={size.onPush} onDecel={size.onDecel} />
        <PushRule {...ruleOf(size)} />
      </Control>
      <Main>
        <h1 className="visually-hidden">
          {job.name}: Size, {setup.name}
        </h1>
        <Line aria-label={`Force line, ${setup.name}`}>
          {found && <Match match={look.match} onMatch={size.onMatch} />}
          <ForceLine solved={solved} state={state} now={now} found={found} said={saidLine(size)} />
          <PartsRow
            place={size.place}
            solved={solved}
            state={state}
            now={later.now}
            found={later.found}
            against={against}
            bores={view.standard_bores}
            onStep={size.onStep}
          />
          {size.message && <Message said={size.message} onClose={size.onClose} />}
        </Line>
        <Instruments>
          <BalancePanel size={later} />
          <TravelPanel size={later} />
          <FindingsPanel findings={size.setup.findings} onMend={size.onMend} />
        </Instruments>
      </Main>
      <footer>
        <TitleBlock
          job={job}
          setup={setup}
          state={state}
          wanted={view.wanted_decel_g ?? 0}
          load={look.load}
          stored={size.busy ? 'storing' : 'all changes'}
          onLoad={size.onLoad}
        />
        <Caution>
          Estimates, to be proven by test. One wrong joint loses all braking: makers’ instructions, road law and
          inspection come first.
        </Caution>
      </footer>
    </Sheet>
  );
}
