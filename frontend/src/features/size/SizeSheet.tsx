/** Size on a laptop: one sheet, the line across it, the instruments beneath. */
import { memo, useCallback, useDeferredValue, useEffect, useMemo, useState, type ReactNode } from 'react';
import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import { PushRule } from '../../charts/PushRule';
import { SheetPage } from '../../ui/SheetPage';
import { SheetTop } from '../../ui/SheetTop';
import { progressOf } from '../../ui/progress';
import { useBehind } from '../../ui/useBehind';
import { useHeight } from '../../ui/useHeight';
import { ForceLine } from './ForceLine';
import { Message } from '../../ui/Message';
import { Banner } from './Banner';
import { Compare } from './Compare';
import { valueAt } from '../../api/document';
import { mostChanged, type BandSide } from './gains';
import { InstrumentStrip } from './Instruments';
import type { Kind } from './line/Road';
import { FindingsPanel } from './Panels';
import { PathSwitch } from './PathSwitch';
import { PartsOf } from './PartsRow';
import { PlanTabs } from '../../ui/PlanTabs';
import { PlanTools } from '../../ui/PlanTools';
import { PushEntry } from './PushEntry';
import { useRule } from './rule';
import { saidLine } from './said';
import { TitleBlock } from './TitleBlock';
import { TRAVEL_LINK, Working } from './Working';
import type { Size } from './useSize';

const Sheet = styled(SheetPage)`
  grid-template-rows: var(--row-strip) var(--row-ctl) minmax(0, 1fr) auto;
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
const Caution = styled.p`
  color: var(--ink-2);
  padding-top: var(--s4);
  font-size: var(--t-note);
`;

interface MatchProps {
  match: 'stop' | 'push';
  below: boolean;
  onMatch: (match: 'stop' | 'push') => void;
}
/** Where as found is matched with the plan: at the road, or at the foot. */
const Match = memo(function Match({ match, onMatch, below }: MatchProps) {
  return (
    <Same className="noprint" data-below={below || undefined}>
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

const SIDES: readonly BandSide[] = ['front', 'rear', 'whole'];

/** The room that is left under the line: what stands in it is told how high it is. */
function Beneath({ children }: { children: (height: number) => ReactNode }) {
  const [ref, height] = useHeight<HTMLDivElement>(250);
  return <Instruments ref={ref}>{children(height)}</Instruments>;
}

export function SizeSheet({ size, tools }: { size: Size; tools: ReactNode }) {
  const { job, setup, solved, state, look, now, found } = size;
  const { view } = job;
  // The line comes first; what is looked at beside it follows one frame behind.
  const later = useBehind(size);
  const rule = useRule(size);
  const begun = useDeferredValue(true, false); // the same when the page opens
  const progress = useMemo(() => progressOf(view), [view]);
  const [link, setLink] = useState<number | null>(null);
  const [comparing, setComparing] = useState(false);
  const [chosen, setSide] = useState<BandSide | null>(null);
  const first = useMemo(() => (found ? mostChanged(solved, now, found) : 'front'), [found, solved, now]);
  const side = chosen ?? first;
  const onSide = useCallback((now: BandSide) => setSide(SIDES[(SIDES.indexOf(now) + 1) % SIDES.length] ?? 'front'), []);
  const onWorking = useCallback(() => setLink(TRAVEL_LINK), []);
  const onCompare = useCallback(() => {
    setLink(null);
    setComparing(true);
  }, []);
  const { onStep, place } = size;
  const onPin = useCallback(
    (mm: number, gesture: string) =>
      onStep({
        label: 'pin moved',
        gesture,
        edits: [{ path: `${place.control}.control.pivot_to_pin_mm`, value: `${mm} mm` }],
      }),
    [onStep, place.control],
  );
  const onBar = useCallback(
    (share: number, gesture: string) =>
      onStep({
        label: 'bar set',
        gesture,
        edits: [{ path: `${place.control}.cylinder.bar.front_share`, value: Math.round(share * 1000) / 1000 }],
      }),
    [onStep, place.control],
  );
  const fixed = size.trying !== null || size.failure !== null;
  const barred = valueAt(place.document, `${place.control}.cylinder.bar.front_share`) === undefined;
  const kind = ((job.document['vehicle'] as { kind?: Kind } | undefined)?.kind ?? 'car') satisfies Kind;
  const paths = setup.solved?.paths ?? [];
  useEffect(() => {
    if (!comparing) return;
    const keys = (event: KeyboardEvent) => {
      if (event.key === 'Escape') setComparing(false);
    };
    window.addEventListener('keydown', keys);
    return () => window.removeEventListener('keydown', keys);
  }, [comparing]);
  return (
    <Sheet>
      <SheetTop job={job} stage="Size" progress={progress} onUndo={size.onUndo} onRedo={size.onRedo}>
        {tools}
      </SheetTop>
      <Control role="region" aria-label="Plans and push">
        <PlanTabs setups={view.setups} using={setup.key} onUse={size.onUse} />
        <PlanTools job={job} using={setup.key} onStep={size.onStep} onUse={size.onUse} onCompare={onCompare} />
        {begun ? (
          <PushEntry push={now.push} decel={now.decel} onPush={size.onPush} onDecel={size.onDecel} />
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
          <Line aria-label={`Force line, ${setup.name}`}>
            {paths.length > 1 && <PathSwitch paths={paths} using={solved.name} onPath={size.onPath} />}
            {found && size.behind === 'as found' && solved.lines.length === 1 && (
              <Match match={look.match} onMatch={size.onMatch} below={paths.length > 1} />
            )}
            <ForceLine
              solved={solved}
              state={state}
              now={now}
              found={found}
              behind={size.behind}
              match={look.match}
              side={side}
              onSide={onSide}
              name={size.trying ? size.trying.label : setup.name}
              kind={kind}
              on={link}
              onLink={setLink}
              onPin={fixed || solved.parts.pedal.linked ? null : onPin}
              onBar={fixed || barred ? null : onBar}
              said={saidLine(size)}
            />
            {begun ? (
              <PartsOf
                setup={setup.key}
                place={size.place}
                solved={solved}
                state={state}
                now={later.now}
                found={later.found}
                bores={view.standard_bores}
                onStep={size.onStep}
              />
            ) : (
              <Room data-parts="" />
            )}
            <Banner size={size} />
            {size.message && <Message said={size.message} onClose={size.onClose} />}
          </Line>
        )}
        <Beneath>
          {(height) =>
            !begun ? null : comparing ? (
              <Compare size={later} onClose={() => setComparing(false)} />
            ) : (
              <>
                {link === null ? (
                  <InstrumentStrip size={later} height={height} onWorking={onWorking} />
                ) : (
                  <Working size={later} link={link} onLink={setLink} />
                )}
                <FindingsPanel size={later} />
              </>
            )
          }
        </Beneath>
      </Main>
      <footer>
        <TitleBlock
          job={later.job}
          solved={later.solved}
          state={later.state}
          wanted={later.job.view.wanted_decel_g ?? 0}
          load={later.look.load}
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
