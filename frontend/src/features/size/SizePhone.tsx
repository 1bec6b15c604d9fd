/** Size on a phone at the car: the worst finding first, the line stood on end, and a dock for the push under the thumb. */
import { useDeferredValue, useState } from 'react';
import { Button } from 'react-aria-components';
import { Link } from 'react-router';
import styled from 'styled-components';
import { PushRule } from '../../charts/PushRule';
import { Mark } from '../../ui/Mark';
import { STAGES } from '../../ui/StageStrip';
import { counted, decel, newtons } from '../../units/format';
import { LevelWord, MendButton } from './Findings';
import { LineDown } from './LineDown';
import { LoadSwitch } from './LoadSwitch';
import { Message } from './Message';
import { BalancePanel, FindingsPanel, TravelPanel } from './Panels';
import { PlanTabs } from './PlanTabs';
import { ruleOf } from './rule';
import { saidLine } from './said';
import { REDO, ThemeButton, UNDO } from './SizeSheet';
import type { Size } from './useSize';
import { difference } from './words';

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
`;
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
  > span {
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
const Tabs = styled.div`
  flex: none;
  border-bottom: var(--r-hair) solid var(--ink);
  height: var(--ph-plan);
  display: grid;
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
    align-content: start;
    > :first-child {
      grid-row: 1 / 5;
    }
  }
  @media print {
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
  .row p {
    font: var(--w-strong) var(--t-hero) / var(--one) var(--letter);
    color: var(--plan);
    text-align: center;
    white-space: nowrap;
  }
  .row i {
    font: var(--w-firm) var(--t-head) / var(--one) var(--letter);
    margin-left: var(--s4);
  }
  nav {
    display: flex;
    justify-content: space-between;
  }
`;
const Go = styled(Button)`
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
    min-height: var(--s28);
    color: var(--ink-2);
  }
  li[aria-current] {
    color: var(--ink);
    font-weight: var(--w-strong);
  }
`;

const NUDGE = 10;
const glide = () => (window.matchMedia('(prefers-reduced-motion: reduce)').matches ? 'auto' : 'smooth');
function goTo(id: string) {
  const target = document.getElementById(id);
  target?.scrollIntoView({ behavior: glide(), block: 'start' });
  target?.focus({ preventScroll: true });
}

export function SizePhone({ size }: { size: Size }) {
  const { job, setup, solved, state, look, now, found } = size;
  const later = useDeferredValue(size);
  const [stages, setStages] = useState(false);
  const worst = setup.findings[0];
  const loud = worst && (worst.level === 'danger' || worst.level === 'caution');
  return (
    <Phone>
      <Head>
        <h1>Size</h1>
        <span>2 of 7</span>
        <ThemeButton />
        <Button aria-label="Undo" isDisabled={!job.can_undo} onPress={size.onUndo}>
          <svg width="16" height="16" aria-hidden="true">
            <path d={UNDO} />
          </svg>
        </Button>
        <Button aria-label="Redo" isDisabled={!job.can_redo} onPress={size.onRedo}>
          <svg width="16" height="16" aria-hidden="true">
            <path d={REDO} />
          </svg>
        </Button>
        <Go aria-expanded={stages} onPress={() => setStages(!stages)}>
          stages
        </Go>
      </Head>
      {stages && (
        <nav aria-label="Stages">
          <Stages>
            {STAGES.map((name, i) => (
              <li key={name} aria-current={name === 'Size' ? 'step' : undefined}>
                {i + 1} {name}
                {name === 'Size' ? '' : ', later'}
              </li>
            ))}
            <li>
              <Link to="/">All jobs</Link>
            </li>
          </Stages>
        </nav>
      )}
      <Tabs role="region" aria-label="Plans">
        <PlanTabs setups={job.view.setups} using={setup.key} onUse={size.onUse} small />
      </Tabs>
      {size.message && <Message said={size.message} onClose={size.onClose} />}
      {worst && !size.message && (
        <Worst role="region" aria-label="Worst finding">
          <Mark state={worst.level} size={18} />
          <p>
            <LevelWord level={worst.level} />
            {worst.sentence}
          </p>
          <Go onPress={() => goTo('findings')}>{counted(setup.findings.length, 'finding', 'findings')}</Go>
          {worst.level === 'danger' && <p className="why">{worst.reason}</p>}
          {loud && worst.level === 'danger' && worst.mend && worst.mend.edits.length > 0 && (
            <MendButton onPress={() => size.onMend(worst)}>{worst.mend.label}</MendButton>
          )}
        </Worst>
      )}
      <Scroll>
        <div id="line">
          <LineDown
            said={saidLine(size)}
            place={size.place}
            solved={solved}
            state={state}
            now={now}
            found={found}
            against={difference(solved.against_found[look.load])}
            bores={job.view.standard_bores}
            onStep={size.onStep}
          />
        </div>
        <BalancePanel size={later} />
        <TravelPanel size={later} />
        <FindingsPanel findings={size.setup.findings} onMend={size.onMend} />
        <section aria-label="Job">
          <p>
            {job.name}.{' '}
            {solved.states.length > 1 ? (
              <LoadSwitch states={solved.states} load={look.load} onLoad={size.onLoad} />
            ) : (
              state.name
            )}
            , {Math.round(state.mass_kg)} kg.
          </p>
          <p>
            Estimates, to be proven by test. One wrong joint loses all braking: makers’ instructions, road law and
            inspection come first.
          </p>
        </section>
      </Scroll>
      <Dock role="region" aria-label="The push" className="noprint">
        <div className="row">
          <Button aria-label="Less push" onPress={() => size.onPush(Math.max(0, Math.round(now.push) - NUDGE))}>
            −
          </Button>
          <p>
            {newtons(now.push)}
            <i>N</i>
          </p>
          <p>
            {decel(now.decel)}
            <i>g</i>
          </p>
          <Button
            aria-label="More push"
            onPress={() => size.onPush(Math.min(job.view.push_range_n, Math.round(now.push) + NUDGE))}
          >
            +
          </Button>
        </div>
        <PushRule {...ruleOf(size)} touch />
        <nav aria-label="Parts of this page">
          <Go onPress={() => goTo('line')}>Line</Go>
          <Go onPress={() => goTo('balance')}>Balance</Go>
          <Go onPress={() => goTo('travel')}>Travel</Go>
          <Go onPress={() => goTo('findings')}>Findings</Go>
        </nav>
      </Dock>
    </Phone>
  );
}
