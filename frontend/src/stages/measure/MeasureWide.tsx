/** Measure on a laptop: what to measure at the left, the drawing in the middle, the entry being made at the right. */
import type { ReactNode } from 'react';
import { Button } from 'react-aria-components';
import styled from 'styled-components';
import { useStoring } from '../../api/changes';
import { Message } from '../../page/Message';
import { SheetPage } from '../../page/SheetPage';
import { Condition } from './Condition';
import { EntryPanel } from './EntryPanel';
import { UnitChoice } from '../../ui/UnitToggle';
import { Paper } from './Paper';
import { Rail } from './Rail';
import { SectionView } from './SectionView';
import { SetupChoice } from './SetupChoice';
import { usePaper } from '../../ui/useMedia';
import { Follows, Standing } from './Standing';
import type { Measure } from './useMeasure';

const Page = styled(SheetPage)`
  grid-template-rows: var(--row-strip) minmax(0, 1fr) auto;
`;
const Body = styled.div`
  display: grid;
  grid-template-columns: 184px minmax(0, 1fr) 372px;
  gap: var(--s20);
  min-height: 0;
  > * {
    min-height: 0;
    overflow-y: auto;
    scrollbar-width: thin;
    padding: var(--s10) var(--s2) var(--s12);
  }
  > :last-child {
    border-left: var(--r-hair) solid var(--rule);
    padding-left: var(--s18);
  }
  @media print {
    display: block;
    > * {
      overflow: visible;
    }
    > aside {
      display: none;
    }
  }
`;
const Left = styled.aside`
  display: flex;
  flex-direction: column;
  gap: var(--s12);
  .key {
    display: grid;
    gap: var(--s6);
    font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
  }
  .key span {
    display: inline-block;
    width: 28px;
    height: 16px;
    vertical-align: -3px;
    margin-right: var(--s8);
    background: var(--sunk);
  }
  .key [data-as='assumed'] {
    background: none;
    border: var(--r-outline) dashed var(--ink-2);
  }
  .key [data-as='here'] {
    background: none;
    border: var(--r-heavy) solid var(--plan);
  }
  > p {
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
    color: var(--ink-2);
  }
`;
const Next = styled(Button)`
  border: var(--r-outline) solid var(--ink);
  background: none;
  min-height: 36px;
  padding: 0 var(--s10);
  display: flex;
  justify-content: space-between;
  align-items: center;
  font: var(--w-strong) var(--t-name) / var(--one) var(--letter);
  kbd {
    font: var(--w-firm) var(--t-note) / var(--snug) var(--letter);
    border: var(--r-hair) solid var(--ink-2);
    padding: 0 var(--s4);
    color: var(--ink-2);
  }
`;
const Right = styled.aside`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s14);
  align-content: start;
`;
const Foot = styled.footer`
  border-top: var(--r-hair) solid var(--ink);
  display: flex;
  justify-content: space-between;
  gap: var(--s16);
  padding-top: var(--s4);
  color: var(--ink-2);
  font-size: var(--t-note);
`;

export function MeasureWide({ head, measure }: { head: ReactNode; measure: Measure }) {
  const storing = useStoring(measure.job.id);
  const { job, section, steps } = measure;
  const paper = usePaper();
  return (
    <Page>
      {head}
      <Body>
        <Left aria-label="Parts and units">
          <Rail measure={measure} />
          <Next onPress={measure.onNextUnknown} className="noprint">
            Next unknown <kbd>N</kbd>
          </Next>
          <SetupChoice measure={measure} />
          <div className="key" aria-hidden="true">
            <div>
              <span />
              measured, as typed
            </div>
            <div>
              <span data-as="assumed" />
              not measured
            </div>
            <div>
              <span data-as="here" />
              being entered
            </div>
          </div>
          <UnitChoice />
        </Left>
        <main>
          <h1 className="visually-hidden">{job.name}: Measure</h1>
          {steps.notice && <Message notice={steps.notice} onClose={steps.onClose} />}
          {paper ? (
            <Paper measure={measure} />
          ) : section ? (
            <SectionView key={section.key} section={section} measure={measure} wide />
          ) : (
            <Condition measure={measure} />
          )}
        </main>
        <Right aria-label="The entry and what hangs on it">
          <EntryPanel measure={measure} />
          <Follows measure={measure} />
          <Standing measure={measure} />
        </Right>
      </Body>
      <Foot>
        <span>
          {job.name}. {storing ? 'Storing' : 'All changes stored'}.
        </span>
        <span>
          Stands on hard ground before you go under it. Brake fluid eats paint, skin and eyes. Dust: no compressed air.
        </span>
      </Foot>
    </Page>
  );
}
