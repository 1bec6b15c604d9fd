/** Match: every combination of what may change, the few worth buying, and why the rest fell. */
import { useMemo, useState, type ReactNode } from 'react';
import { Button } from 'react-aria-components';
import { Link, useNavigate, useSearchParams } from 'react-router';
import styled from 'styled-components';
import type { Found, Job, StageState } from '../../api/types';
import { Tried } from '../../charts/Tried';
import { Plain } from '../../page/JobGate';
import { Message } from '../../page/Message';
import { Go } from '../../page/PhoneHead';
import { Bar, cautions, headings } from '../../page/sheet';
import { StagePage, type StageProps } from '../../page/StagePage';
import { DataTable } from '../../ui/DataTable';
import { TABLED, useMedia } from '../../ui/useMedia';
import { useHeight } from '../../ui/useHeight';
import { useWidth } from '../../ui/useWidth';
import { force, lengthOf, spoken } from '../../units/display';
import { decel, spaced } from '../../units/format';
import { useShown } from '../../units/preference';
import { Cards } from './Cards';
import { Fallen } from './Fallen';
import { Filters } from './Filters';
import { Advice, Preview } from './Preview';
import { Rail } from './Rail';
import { Shortlist } from './Shortlist';
import { useMatch, type Matching } from './useMatch';
import { inChosenUnits } from '../../units/sentences';

const Page = styled.div`
  max-width: var(--sheet-most);
  margin: 0 auto;
  padding: var(--s8) var(--s16);
  zoom: var(--zoom);
  .body {
    display: grid;
    grid-template-columns: 232px minmax(0, 1fr);
  }
  .rail {
    border-right: var(--r-hair) solid var(--rule);
    padding: var(--s8) var(--s14) var(--s8) 0;
  }
  .two {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 360px;
    border-bottom: var(--r-heavy) solid var(--ink);
  }
  .two > section {
    padding: var(--s8) 0 var(--s8) var(--s14);
    min-width: 0;
  }
  .two > section + section {
    border-left: var(--r-hair) solid var(--rule);
  }
  /* The plot takes the height of what stands beside it; its own adds none. */
  .two > .tried {
    display: flex;
    flex-direction: column;
  }
  .tried > .room {
    flex: 1 0 304px;
    max-height: max(304px, calc(100vh - 150px));
  }
  .room > .plot {
    height: 0;
  }
  .under {
    padding: var(--s6) 0 var(--s8) var(--s14);
    min-width: 0;
  }
  .tools {
    display: flex;
    flex-wrap: wrap;
    align-items: end;
    gap: var(--s4) var(--s16);
  }
  ${headings}
  h2 button {
    border: 0;
    background: none;
    padding: 0;
    min-height: var(--s24);
    font: var(--w-firm) var(--t-text) / var(--one) var(--text);
    text-decoration: underline;
    text-underline-offset: var(--s3);
  }
  @media (pointer: coarse) {
    h2 button {
      min-height: var(--target);
      min-width: var(--target);
    }
  }
  &[data-narrow] {
    padding: 0 var(--s12) var(--s16);
  }
  &[data-narrow] .body,
  &[data-narrow] .two {
    grid-template-columns: minmax(0, 1fr);
  }
  &[data-narrow] .rail {
    border-right: 0;
    border-bottom: var(--r-hair) solid var(--ink);
    padding-right: 0;
  }
  &[data-narrow] .two > section,
  &[data-narrow] .under {
    padding-left: 0;
  }
  &[data-narrow] .two > section + section {
    border-left: 0;
  }
  &[data-narrow] h2 {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 0 var(--s12);
  }
  &[data-narrow] h2 em {
    order: 1;
    flex-basis: 100%;
    padding-left: 0;
  }
  ${cautions}
`;
const SearchBar = styled(Bar)`
  p {
    font: var(--w-firm) var(--t-name) / var(--snug) var(--text);
  }
  p span {
    color: var(--ink-2);
    padding-left: var(--s12);
  }
  progress {
    width: 120px;
    accent-color: var(--plan);
  }
  button,
  > a {
    border: var(--r-outline) solid var(--ink);
    background: none;
    min-height: var(--s28);
    padding: 0 var(--s10);
    display: inline-flex;
    align-items: center;
    gap: var(--s6);
    color: inherit;
    text-decoration: none;
    font: var(--w-strong) var(--t-text) / var(--one) var(--letter);
  }
  kbd {
    font: var(--w-firm) var(--t-note) / var(--snug) var(--letter);
    border: var(--r-hair) solid var(--ink-2);
    padding: 0 var(--s4);
    color: var(--ink-2);
  }
  button[data-disabled] {
    opacity: 0.4;
  }
  @media (pointer: coarse) {
    kbd {
      display: none;
    }
    button,
    > a {
      min-height: var(--target);
    }
  }
  /* What is said may change under a thumb: it has its room from the beginning, and nothing below it moves. */
  &[data-narrow] {
    position: relative;
    gap: var(--s4) var(--s8);
  }
  &[data-narrow] p {
    flex-basis: 100%;
    min-height: calc(2 * var(--t-name) * var(--snug));
  }
  &[data-narrow] p span {
    display: block;
    padding-left: 0;
  }
  &[data-narrow] progress {
    position: absolute;
    right: 0;
    bottom: 0;
    left: 0;
    width: 100%;
    height: var(--s4);
  }
`;

/** The setup that is asked for, or the first plan. */
export function MatchPage({ job, stages }: StageProps<null>) {
  const [search] = useSearchParams();
  const asked = search.get('setup');
  const setup = asked !== null && job.setups.includes(asked) ? asked : (job.setups[1] ?? job.setups[0] ?? '');
  const control = search.get('control');
  return <Ready key={`${setup} ${control ?? ''}`} job={job} stages={stages} setup={setup} control={control} />;
}

/** What the search says, in a sentence. */
function sentence(matching: Matching): [string, string] {
  const { state, found, choices } = matching;
  if (choices.reason !== null) return [choices.reason, ''];
  if (!state || !found) return ['Beginning.', ''];
  if (state.state === 'running' && found.to_look > 0)
    return [`${spaced(found.total)} tried; plausible vehicles for the best: ${found.looked} of ${found.to_look}`, ''];
  if (state.state === 'running') return [`${spaced(found.done)} of ${spaced(found.total)} tried`, ''];
  const tried =
    state.state === 'stopped'
      ? `Stopped: ${spaced(found.done)} of ${spaced(found.total)} setups tried`
      : `All ${spaced(found.total)} setups tried, ${state.seconds < 0.1 ? 'under 0.1' : state.seconds.toFixed(1)} s`;
  const worth = found.kept.filter((k) => k.reasons.length > 0).length;
  return [
    tried,
    found.meet === 0
      ? 'none meets every limit'
      : `${spaced(worth)} worth buying out of ${spaced(found.meet)} that meet every limit`,
  ];
}

interface ReadyProps {
  job: Job;
  stages: readonly StageState[];
  setup: string;
  control: string | null;
}
function Ready({ job, stages, setup, control }: ReadyProps) {
  const matching = useMatch(job, setup, control);
  const units = useShown();
  const go = useNavigate();
  const back = `/jobs/${job.id}/size`;
  const again = matching?.onAgain;
  const keys = useMemo(() => ({ g: () => again?.(), Escape: () => void go(back) }), [again, go, back]);
  return (
    <StagePage
      job={job}
      stages={stages}
      stage="size"
      title="Match"
      setup={setup}
      keys={keys}
      onUndo={() => matching?.steps.onUndo()}
      onRedo={() => matching?.steps.onRedo()}
    >
      {(head, wide) =>
        matching ? (
          <Body key={units} head={head} wide={wide} matching={matching} back={back} />
        ) : (
          <Plain aria-busy="true">
            <p>Laying out the search.</p>
          </Plain>
        )
      }
    </StagePage>
  );
}

interface BodyProps {
  head: ReactNode;
  wide: boolean;
  matching: Matching;
  back: string;
}
function Body({ head, wide, matching, back }: BodyProps) {
  const { state, found, refused, setup, steps } = matching;
  const [tried, kept] = sentence(matching);
  const running = state?.state === 'running' && found !== null;
  return (
    <Page data-narrow={wide ? undefined : ''}>
      {head}
      <main>
        <SearchBar data-narrow={wide ? undefined : ''}>
          <h1>
            Match, from {setup}
            {matching.search.control ? `, ${matching.search.control}` : ''}
          </h1>
          <p role="status">
            {tried}
            {kept !== '' && <span>{kept}</span>}
            {matching.old && <span>the job was changed since</span>}
          </p>
          {running && <progress aria-label="Setups tried" max={found.total} value={found.done} />}
          <Button className="noprint" isDisabled={!running} onPress={matching.onStop}>
            Stop
          </Button>
          <Button className="noprint" onPress={matching.onAgain}>
            Again <kbd>G</kbd>
          </Button>
          <Link to={back} className="noprint">
            Back to the force line <kbd>Esc</kbd>
          </Link>
        </SearchBar>
        {refused !== null && <Message notice={{ text: refused }} onClose={matching.onAgain} />}
        {steps.notice && <Message notice={steps.notice} onClose={steps.onClose} />}
        <div className="body">
          <RailBox matching={matching} open={wide} />
          {found ? <Result found={found} matching={matching} /> : <Nothing matching={matching} />}
        </div>
      </main>
      <footer>
        Estimates, to be proven by test. Prices are what was entered. Makers’ instructions, road law and inspection come
        first.
      </footer>
    </Page>
  );
}

function RailBox({ matching, open }: { matching: Matching; open: boolean }) {
  const [shown, setShown] = useState(false);
  return (
    <aside className="rail" aria-label="What is searched">
      {!open && (
        <Go aria-expanded={shown} onPress={() => setShown(!shown)}>
          {shown ? 'hide what is searched' : 'what may change, what must hold'}
        </Go>
      )}
      {(open || shown) && <Rail matching={matching} />}
    </aside>
  );
}

const Nothing = ({ matching }: { matching: Matching }) => (
  <div className="under">
    <p>{matching.choices.reason ?? 'The first setups come in a moment.'}</p>
  </div>
);

function describe(found: Found, rows: Matching['rows']): string {
  const first = rows
    .slice(0, 6)
    .map((r, i) => `${i + 1}: ${spoken(force(r.push_n))}, ${spoken(lengthOf(r.travel_mm))}`);
  return `Push against travel at ${decel(found.decel_g)} g: ${found.done} setups tried, ${found.meet} meet every limit. ${first.join('; ')}.`;
}

/** As a table where there is room for one. */
function Listed(props: { found: Found; matching: Matching }) {
  return useMedia(TABLED) ? <Shortlist {...props} /> : <Cards {...props} />;
}

function Result({ found, matching }: { found: Found; matching: Matching }) {
  const { rows, on, lit, onRow, choices, act } = matching;
  const [ref, width] = useWidth<HTMLDivElement>(600);
  const [room, height] = useHeight<HTMLDivElement>(304);
  const [table, setTable] = useState(false);
  const row = on === null ? null : (rows[on] ?? null);
  const none = found.meet === 0 && found.done === found.total;
  return (
    <div>
      <div className="two">
        <section aria-label="Push against travel" className="tried">
          <h2>
            Push against travel
            <em>in the heaviest load state; each square a handful of setups, crosses P5 to P95</em>{' '}
            <Button className="noprint" onPress={() => setTable(!table)}>
              {table ? 'plot' : 'table'}
            </Button>
          </h2>
          <div ref={room} className="room">
            <div ref={ref} className={table ? '' : 'plot'}>
              {table ? (
                <DataTable
                  caption="Setups on the plot"
                  head={['setup', `push, ${force(0).unit}`, `travel, ${lengthOf(0).unit}`]}
                  rows={[
                    ...found.setups.map((m) => [m.name, force(m.push_n).v, lengthOf(m.travel_mm).v]),
                    ...rows.map((r, i) => [String(i + 1), force(r.push_n).v, lengthOf(r.travel_mm).v]),
                  ]}
                />
              ) : (
                <Tried
                  width={width}
                  height={height}
                  found={found}
                  rows={rows}
                  on={on}
                  lit={lit}
                  onRow={onRow}
                  dangers={{ effort_n: choices.effort_limit_n, travel_share: choices.travel_limit_share }}
                  onLimit={(limit, value) =>
                    act({
                      do: 'limits',
                      change: { [limit]: limit === 'effort_n' ? `${value} N` : `${Math.round(value * 100)} %` },
                    })
                  }
                  description={describe(found, rows)}
                />
              )}
            </div>
          </div>
        </section>
        <section aria-label="Why the others fell">
          <Fallen found={found} matching={matching} />
        </section>
      </div>
      <section className="under" aria-label="Worth buying">
        <Preview row={row} matching={matching} />
        {!none && (
          <div className="tools">
            <Advice row={row} />
            <Filters found={found} matching={matching} />
          </div>
        )}
        {none ? (
          <p>
            No setup meets all limits.
            {found.more[0]
              ? ` ${spaced(found.more[0].count)} would ${inChosenUnits(found.more[0].words)}.`
              : ' Let more change, or loosen a limit.'}
          </p>
        ) : found.kept.length === 0 ? (
          <p>None that meets every limit yet.</p>
        ) : (
          <Listed found={found} matching={matching} />
        )}
      </section>
    </div>
  );
}
