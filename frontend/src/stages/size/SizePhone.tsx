/** Size on a phone at the car: the worst finding first, the line stood on end, and a dock for the push under the thumb. */
import { useCallback, type ReactNode } from 'react';
import { Button } from 'react-aria-components';
import styled from 'styled-components';
import type { Steps } from '../../api/changes';
import { describeLine } from '../../chain/descriptions';
import { LinesDown } from '../../chain/LinesDown';
import { difference } from '../../chain/words';
import { PushRule } from '../../charts/PushRule';
import { Message } from '../../page/Message';
import { Go } from '../../page/PhoneHead';
import { FirstRun } from '../../page/FirstRun';
import { PlanTabs } from '../../page/PlanTabs';
import { PlanTools } from '../../page/PlanTools';
import { Mark } from '../../ui/Mark';
import { useDeferredView } from '../../ui/useDeferredView';
import { counted } from '../../units/format';
import { Banner } from './Banner';
import { LevelWord, MendButton, TryIt } from './Findings';
import { LoadSwitch } from './LoadSwitch';
import { Compare, Working } from './opened';
import { FindingsPanel, InstrumentPanel } from './Panels';
import { PathSwitch } from './PathSwitch';
import { PushFields } from './PushFields';
import { usePushRule } from './pushRule';
import type { Looking } from './state';
import type { Acts, Reading } from './useSize';
import { inChosenUnits } from '../../units/sentences';
import { mass, written } from '../../units/display';

const Phone = styled.div`
  height: 100dvh;
  max-width: var(--phone-most);
  margin: 0 auto;
  padding: 0 var(--s16);
  display: flex;
  flex-direction: column;
  font: var(--w-firm) var(--t-head) / var(--read) var(--text);
  @media (min-width: 800px) {
    max-width: 1100px;
  }
  @media print {
    height: auto;
  }
  @media (max-height: 500px) {
    height: auto;
  }
`;
const Tabs = styled.div`
  flex: none;
  border-bottom: var(--r-hair) solid var(--ink);
  height: var(--ph-plan);
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
`;
const Worst = styled.div`
  flex: none;
  display: grid;
  grid-template-columns: var(--s24) minmax(0, 1fr) auto;
  align-items: center;
  column-gap: var(--s4);
  padding: var(--s6) 0;
  border-bottom: var(--r-hair) solid var(--rule);
  p {
    font: var(--w-firm) var(--t-head) / var(--snug) var(--text);
  }
  .why {
    grid-column: 2 / 4;
    color: var(--ink-2);
  }
  ${MendButton} {
    grid-column: 1 / 4;
    margin: var(--s6) 0 var(--s2);
    min-height: var(--target);
    font-size: var(--t-head);
    white-space: normal;
  }
`;
const Scroll = styled.main`
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  overflow-x: hidden;
  margin: 0 calc(0px - var(--s16));
  padding: var(--s4) var(--s16) var(--s24);
  section {
    border-left: 0;
    border-top: var(--r-heavy) solid var(--ink);
    padding: var(--s10) 0;
    margin-top: var(--s12);
  }
  @media (min-width: 800px) {
    display: grid;
    grid-template-columns: minmax(360px, 1fr) minmax(0, 1fr);
    column-gap: var(--s28);
    grid-auto-rows: max-content;
    align-content: start;
    > :first-child {
      grid-row: 1 / span 8;
    }
  }
  @media print {
    overflow: visible;
  }
  @media (max-height: 500px) {
    overflow: visible;
  }
`;
const Dock = styled.div`
  flex: none;
  margin: 0 calc(0px - var(--s16));
  padding: var(--s6) var(--s16) max(var(--s4), env(safe-area-inset-bottom));
  border-top: var(--r-heavy) solid var(--ink);
  background: var(--paper);
  .row {
    display: grid;
    grid-template-columns: var(--target) 1fr 1fr var(--target);
    align-items: center;
    gap: var(--s8);
  }
  .row button {
    height: var(--target);
    border: var(--r-outline) solid var(--ink);
    background: none;
    padding: 0;
    font: var(--w-strong) var(--t-result) / var(--one) var(--letter);
  }
  .react-aria-TextField {
    position: relative;
  }
  .line {
    display: flex;
    align-items: baseline;
    justify-content: center;
    gap: var(--s4);
    color: var(--plan);
    font: var(--w-firm) var(--t-head) / var(--one) var(--letter);
  }
  .react-aria-Input {
    width: calc(var(--chars) * 1ch);
    min-height: var(--target);
    padding: 0;
    border: 0;
    background: none;
    color: var(--plan);
    text-align: right;
    font: var(--w-strong) var(--t-hero) / var(--one) var(--letter);
  }
  .react-aria-Input[data-focused] {
    outline: var(--r-heavy) solid var(--plan);
  }
  [role='alert'] {
    top: auto;
    bottom: 100%;
  }
  nav {
    display: flex;
    justify-content: space-between;
  }
`;
const NUDGE = 10;
const glide = () => (window.matchMedia('(prefers-reduced-motion: reduce)').matches ? 'auto' : 'smooth');
function goTo(id: string) {
  const target = document.getElementById(id);
  target?.scrollIntoView({ behavior: glide(), block: 'start' });
  target?.focus({ preventScroll: true });
}

interface PhoneProps {
  head: ReactNode;
  reading: Reading;
  look: Looking;
  acts: Acts;
  steps: Steps;
}
export function SizePhone({ head, reading, look, acts, steps }: PhoneProps) {
  const { job, view, setup, solved, state, now, found, load } = reading;
  const { onBeneath } = acts;
  const later = useDeferredView(reading);
  const rule = usePushRule(reading, acts.onPush);
  const onCompare = useCallback(() => onBeneath('comparison'), [onBeneath]);
  const onLink = useCallback((link: number | null) => onBeneath(link === null ? 'instruments' : { link }), [onBeneath]);
  const worst = setup.findings[0];
  return (
    <Phone>
      {head}
      <Tabs role="region" aria-label="Plans">
        <PlanTabs setups={view.setups} using={setup.key} onUse={acts.onUse} onMove={acts.onMove} small />
        <PlanTools job={job} using={setup.key} onStep={acts.onStep} onUse={acts.onUse} onCompare={onCompare} small />
      </Tabs>
      <Banner {...reading} {...acts} />
      {steps.notice && <Message notice={steps.notice} onClose={steps.onClose} />}
      {worst && !steps.notice && !reading.trying && !reading.failure && (
        <Worst role="region" aria-label="Worst finding">
          <Mark state={worst.level} size={18} />
          <p>
            <LevelWord finding={worst} />
            {inChosenUnits(worst.sentence)}
          </p>
          <Go onPress={() => goTo('findings')}>{counted(setup.findings.length, 'finding', 'findings')}</Go>
          {worst.level === 'danger' && <p className="why">{inChosenUnits(worst.reason)}</p>}
          {worst.level === 'danger' && worst.mends[0] && <TryIt mend={worst.mends[0]} onMend={acts.onMend} />}
        </Worst>
      )}
      <Scroll>
        {look.beneath === 'comparison' ? (
          <Compare job={later.job} state={later.state} load={later.load} onClose={() => onBeneath('instruments')} />
        ) : typeof look.beneath === 'object' ? (
          <Working {...later} link={look.beneath.link} onLink={onLink} />
        ) : (
          <>
            <div id="line">
              {(setup.solved?.paths.length ?? 0) > 1 && (
                <PathSwitch paths={setup.solved?.paths ?? []} using={solved.name} onPath={acts.onPath} />
              )}
              <LinesDown
                description={describeLine(setup.name, solved, now, found)}
                place={reading.place}
                solved={solved}
                state={state}
                now={now}
                found={found}
                against={difference(solved.against_found[load])}
                bores={view.standard_bores}
                onStep={acts.onStep}
                onLink={onLink}
              />
            </div>
            <InstrumentPanel id="feel" reading={later} />
            {!later.solved.one_axle && <InstrumentPanel id="balance" reading={later} />}
            <InstrumentPanel id="travel" reading={later} />
            <FindingsPanel setup={setup} failure={look.failure} onMend={acts.onMend} onFailure={acts.onFailure} />
            <InstrumentPanel id="valve" reading={later} />
            {!later.solved.one_axle && <InstrumentPanel id="adhesion" reading={later} />}
            {later.solved.parts.pedal.linked && <InstrumentPanel id="ratio" reading={later} />}
            <InstrumentPanel id="heat" reading={later} />
            <FirstRun job={job.id} />
            <section aria-label="Job">
              <p>
                {job.name}.{' '}
                {solved.states.length > 1 ? (
                  <LoadSwitch states={solved.states} load={load} onLoad={acts.onLoad} />
                ) : (
                  state.name
                )}
                , {written(mass(state.mass_kg))}.
              </p>
              <p>
                Estimates, to be proven by test. One wrong joint loses all braking: makers’ instructions, road law and
                inspection come first.
              </p>
            </section>
          </>
        )}
      </Scroll>
      <Dock role="region" aria-label="The push" className="noprint">
        <div className="row">
          <Button aria-label="Less push" onPress={() => acts.onPush(Math.max(0, Math.round(now.push) - NUDGE))}>
            −
          </Button>
          <PushFields push={now.push} decel={now.decel} onPush={acts.onPush} onDecel={acts.onDecel} quiet />
          <Button
            aria-label="More push"
            onPress={() => acts.onPush(Math.min(view.push_range_n, Math.round(now.push) + NUDGE))}
          >
            +
          </Button>
        </div>
        <PushRule {...rule} touch />
        <nav aria-label="Parts of this page">
          <Go onPress={() => goTo('line')}>Line</Go>
          {!solved.one_axle && <Go onPress={() => goTo('balance')}>Balance</Go>}
          <Go onPress={() => goTo('travel')}>Travel</Go>
          <Go onPress={() => goTo('findings')}>Findings</Go>
        </nav>
      </Dock>
    </Phone>
  );
}
