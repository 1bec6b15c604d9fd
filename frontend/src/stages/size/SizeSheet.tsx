/** Size on a laptop: one sheet, the line across it, the instruments beneath. */
import { memo, useCallback, useDeferredValue, useState, type ReactNode } from 'react';
import { Button, ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import type { Steps } from '../../api/changes';
import { describeLine } from '../../chain/descriptions';
import { ForceLine } from '../../chain/ForceLine';
import { gainsAt, mostChanged, type BandSide, type Match } from '../../chain/gains';
import { PartsInOne, PartsOf } from '../../chain/PartsRow';
import { valueAt, valueStep } from '../../chain/place';
import { PushRule } from '../../charts/PushRule';
import { FirstRun } from '../../page/FirstRun';
import { Message } from '../../page/Message';
import { PlanTabs } from '../../page/PlanTabs';
import { PlanTools } from '../../page/PlanTools';
import { SheetPage } from '../../page/SheetPage';
import { useDeferredView } from '../../ui/useDeferredView';
import { useHeight } from '../../ui/useHeight';
import { LOW, useMedia, usePaper } from '../../ui/useMedia';
import { Banner } from './Banner';
import { InstrumentStrip } from './Instruments';
import { Compare, Working } from './opened';
import { FindingsPanel } from './Panels';
import { PathSwitch } from './PathSwitch';
import { PushEntry } from './PushEntry';
import { usePushRule } from './pushRule';
import { TRAVEL_LINK, type Looking } from './state';
import { TitleBlock } from './TitleBlock';
import type { Acts, Reading } from './useSize';
import { Worst } from './Worst';

const Sheet = styled(SheetPage)`
  grid-template-rows: auto var(--row-ctl) minmax(0, 1fr) auto;
  @media ${LOW} {
    height: auto;
    min-height: calc(100vh / var(--zoom));
    padding-top: var(--s2);
    grid-template: auto var(--row-ctl) 1fr auto / minmax(0, 1fr);
  }
`;
const Control = styled.div`
  display: grid;
  grid-template-columns: minmax(0, auto) auto auto minmax(360px, 1fr);
  @media print {
    grid-template-columns: auto auto minmax(360px, 1fr);
  }
  border-bottom: var(--r-hair) solid var(--ink);
`;
const Main = styled.main`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
  &[data-comparing] {
    grid-template-rows: minmax(0, 1fr);
  }
  @media ${LOW} {
    grid-template: auto minmax(var(--strip-least), 1fr) / minmax(0, 1fr);
  }
`;
const Full = styled(Button)`
  border: 0;
  background: none;
  padding: 0;
  min-height: var(--s24);
  font: var(--w-strong) var(--t-text) / var(--one) var(--text);
  text-decoration: underline;
  text-underline-offset: var(--s3);
  white-space: nowrap;
`;
const Line = styled.section`
  position: relative;
  border-bottom: var(--r-heavy) solid var(--ink);
`;
/** What comes one frame after the line has its room from the start. */
const Room = styled.div`
  &[data-entry] {
    width: 245px;
  }
  &[data-parts] {
    height: 65px;
  }
`;
const Same = styled.div`
  position: absolute;
  left: 0;
  top: var(--s30);
  width: var(--switch-w);
  &[data-below] {
    top: 62px;
  }
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
  grid-template-rows: minmax(0, 1fr);
  min-height: 0;
  @media print {
    section {
      overflow: visible;
    }
  }
`;
const Foot = styled.footer`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 0 var(--s16);
  > :first-child {
    grid-column: 1 / -1;
  }
`;
const Caution = styled.p`
  color: var(--ink-2);
  padding-top: var(--s4);
  font-size: var(--t-note);
`;

interface MatchProps {
  match: Match;
  below: boolean;
  onMatch: (match: Match) => void;
}
/** Where as found is matched with the plan: at the road, or at the foot. */
const MatchedAt = memo(function MatchedAt({ match, onMatch, below }: MatchProps) {
  return (
    <Same className="noprint" data-below={below || undefined}>
      <p id="same">Compare with as found at</p>
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

const SIDES: readonly BandSide[] = ['front', 'rear', 'whole'];

const ON_PAPER = 250; // px of the instruments, whatever screen it is printed from
/** The room that is left under the line: what stands in it is told how high it is. */
function Beneath({ children }: { children: (height: number) => ReactNode }) {
  const [ref, height] = useHeight<HTMLDivElement>(ON_PAPER);
  const paper = usePaper();
  return <Instruments ref={ref}>{children(paper ? ON_PAPER : height)}</Instruments>;
}

interface SheetProps {
  head: ReactNode;
  reading: Reading;
  look: Looking;
  acts: Acts;
  steps: Steps;
}
export function SizeSheet({ head, reading, look, acts, steps }: SheetProps) {
  const { job, view, setup, solved, state, now, found, match, place, onStep } = reading;
  const { onBeneath } = acts;
  // The line comes first; what is looked at beside it follows one frame behind.
  const later = useDeferredView(reading);
  const rule = usePushRule(reading, acts.onPush);
  const begun = useDeferredValue(true, false); // the same when the page opens
  const [chosen, setSide] = useState<BandSide | null>(null);
  const low = useMedia(LOW);
  const [full, setFull] = useState(false);
  const short = low && !full;
  const gains = found ? state.gains : null;
  const pushes = state.curves.push_n;
  const side = chosen ?? mostChanged(gains, pushes, now.push, match);
  const onSide = useCallback(
    (from: BandSide) => setSide(SIDES[(SIDES.indexOf(from) + 1) % SIDES.length] ?? 'front'),
    [],
  );
  const onLink = useCallback((link: number | null) => onBeneath(link === null ? 'instruments' : { link }), [onBeneath]);
  const onWorking = useCallback(() => onLink(TRAVEL_LINK), [onLink]);
  const onCompare = useCallback(() => onBeneath('comparison'), [onBeneath]);
  const onClose = useCallback(() => onBeneath('instruments'), [onBeneath]);
  const onPin = useCallback(
    (mm: number, gesture: string) =>
      onStep(valueStep(place, 'pin moved', `${place.control}.control.pivot_to_pin_mm`, `${mm} mm`, gesture)),
    [onStep, place],
  );
  const bar = `${place.control}.cylinder.bar.front_share`;
  const onBar = useCallback(
    (share: number, gesture: string) =>
      onStep(valueStep(place, 'bar set', bar, Math.round(share * 1000) / 1000, gesture)),
    [onStep, place, bar],
  );
  const fixed = reading.trying !== null || reading.failure !== null;
  const barred = valueAt(place.document, bar) === undefined;
  const paths = setup.solved?.paths ?? [];
  const link = typeof look.beneath === 'object' ? look.beneath.link : null;
  const comparing = look.beneath === 'comparison';
  const { now: at, found: was } = later;
  const row = { place, solved, state, now: at, found: was, bores: view.standard_bores, onStep };
  return (
    <Sheet>
      <div>
        {head}
        {low && <FirstRun job={job.id} />}
      </div>
      <Control role="region" aria-label="Plans and push">
        <PlanTabs setups={view.setups} using={setup.key} onUse={acts.onUse} onMove={acts.onMove} />
        <PlanTools job={job} using={setup.key} onStep={onStep} onUse={acts.onUse} onCompare={onCompare} />
        {begun ? (
          <PushEntry push={now.push} decel={now.decel} onPush={acts.onPush} onDecel={acts.onDecel} />
        ) : (
          <Room data-entry="" />
        )}
        <PushRule {...rule} />
      </Control>
      <Main data-comparing={comparing || undefined}>
        <h1 className="visually-hidden">
          {job.name}: Size, {setup.name}
        </h1>
        {!comparing && (
          <div>
            {low && !fixed && <Worst findings={later.setup.findings} onMend={acts.onMend} />}
            <Line aria-label={`Force line, ${setup.name}`}>
              {paths.length > 1 && <PathSwitch paths={paths} using={solved.name} onPath={acts.onPath} />}
              {found && !fixed && solved.lines.length === 1 && (
                <MatchedAt match={look.match} onMatch={acts.onMatch} below={paths.length > 1} />
              )}
              <ForceLine
                solved={solved}
                state={state}
                now={now}
                found={found}
                behind={reading.behind}
                gains={gainsAt(gains, pushes, now.push, match, side)}
                match={match}
                side={side}
                onSide={onSide}
                name={reading.trying?.name ?? setup.name}
                kind={reading.kind}
                on={link}
                onLink={onLink}
                onPin={fixed || solved.parts.pedal.linked ? null : onPin}
                onBar={fixed || barred ? null : onBar}
                description={describeLine(setup.name, solved, now, found)}
                short={short}
              />
              {short ? (
                <PartsInOne {...row}>
                  <Full onPress={() => setFull(true)}>full chain</Full>
                </PartsInOne>
              ) : begun ? (
                <PartsOf {...row} />
              ) : (
                <Room data-parts="" />
              )}
              {low && full && <Full onPress={() => setFull(false)}>short chain</Full>}
              <Banner {...reading} {...acts} />
              {steps.notice && <Message notice={steps.notice} onClose={steps.onClose} />}
            </Line>
          </div>
        )}
        <Beneath>
          {(height) =>
            !begun ? null : comparing ? (
              <Compare job={later.job} state={later.state} load={later.load} onClose={onClose} />
            ) : (
              <>
                {link === null ? (
                  <InstrumentStrip reading={later} height={height} onWorking={onWorking} />
                ) : (
                  <Working {...later} link={link} onLink={onLink} />
                )}
                <FindingsPanel
                  setup={later.setup}
                  failure={look.failure}
                  onMend={acts.onMend}
                  onFailure={acts.onFailure}
                />
              </>
            )
          }
        </Beneath>
      </Main>
      <Foot>
        <TitleBlock
          job={later.job}
          solved={later.solved}
          state={later.state}
          wanted={later.view.wanted_decel_g ?? 0}
          load={later.load}
          onLoad={acts.onLoad}
        />
        <Caution>
          Estimates, to be proven by test. One wrong joint loses all braking: makers’ instructions, road law and
          inspection come first.
        </Caution>
        {!low && <FirstRun job={job.id} beside />}
      </Foot>
    </Sheet>
  );
}
