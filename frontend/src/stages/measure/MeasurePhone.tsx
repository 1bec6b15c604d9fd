/** Measure on a phone at the car: one part at a time, the drawing numbered, the fields below, a pad under the thumb. */
import { useMemo, useState, type ReactNode } from 'react';
import { Button } from 'react-aria-components';
import { Link } from 'react-router';
import styled from 'styled-components';
import { Choose } from '../../ui/Choose';
import { Message } from '../../page/Message';
import { Condition } from './Condition';
import { EntryPanel } from './EntryPanel';
import { EnterContext } from '../../page/entering';
import { FractionPad } from './FractionPad';
import { SectionView } from './SectionView';
import { SetupChoice } from './SetupChoice';
import { Follows, Standing } from './Standing';
import { CONDITION, type Measure } from './useMeasure';
import { UnitChoice } from '../../ui/UnitToggle';

const Page = styled.div`
  height: 100dvh;
  max-width: 900px;
  margin: 0 auto;
  padding: 0 var(--s16);
  display: flex;
  flex-direction: column;
  font: var(--w-firm) var(--t-head) / var(--read) var(--text);
  @media print {
    height: auto;
  }
`;
const Part = styled.div`
  flex: none;
  display: flex;
  align-items: end;
  justify-content: space-between;
  gap: var(--s10);
  border-bottom: var(--r-hair) solid var(--ink);
  padding: var(--s4) 0;
`;
const Scroll = styled.main`
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  padding: var(--s10) 0 var(--s40);
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s14);
  align-content: start;
  @media print {
    overflow: visible;
  }
`;
const Go = styled(Button)`
  border: var(--r-outline) solid var(--ink);
  background: none;
  min-height: var(--target);
  padding: 0 var(--s12);
  white-space: nowrap;
`;

export function MeasurePhone({ head, measure }: { head: ReactNode; measure: Measure }) {
  const { sheet, section, steps, looked } = measure;
  const [pad, setPad] = useState(true);
  const coarse = useMemo(() => window.matchMedia('(pointer: coarse)').matches, []);
  const entering = useMemo(() => ({ ...measure.entering, pad: pad && coarse }), [measure.entering, pad, coarse]);
  const parts = [
    ...sheet.sections.map((s) => ({ id: s.key, label: `${s.title}, ${s.done} of ${s.total}` })),
    { id: CONDITION, label: `Condition, ${sheet.condition.length} notes` },
  ];
  return (
    <EnterContext.Provider value={entering}>
      <Page>
        {head}
        <Part role="region" aria-label="Which part">
          <Choose label="what to measure" value={looked} options={parts} onChange={measure.onSection} />
          <Go onPress={measure.onNextUnknown}>Next unknown</Go>
        </Part>
        {steps.notice && <Message notice={steps.notice} onClose={steps.onClose} />}
        <Scroll>
          {section ? (
            <SectionView key={section.key} section={section} measure={measure} wide={false} />
          ) : (
            <Condition measure={measure} />
          )}
          <EntryPanel measure={measure} />
          <Follows measure={measure} />
          <Standing measure={measure} />
          <SetupChoice measure={measure} />
          <UnitChoice />
          <p>
            Stands on hard ground before you go under it. Brake fluid eats paint, skin and eyes.{' '}
            <Link to="/" className="press">
              All jobs
            </Link>
          </p>
        </Scroll>
        {coarse && <FractionPad measure={measure} pad={pad} onPad={setPad} />}
      </Page>
    </EnterContext.Provider>
  );
}
