/** What the stops say, in words: the gain with its doubt, what set the stops, and how many more would tell. */
import styled from 'styled-components';
import type { ProveView } from '../../api/types';
import { Mark } from '../../ui/Mark';
import { capital, counted } from '../../units/format';
import { inChosenUnits } from '../../units/sentences';
import { onRoad, written } from '../../units/display';

const Box = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s6);
  .head {
    font: var(--w-strong) var(--t-title) / var(--snug) var(--letter);
  }
  .one {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr);
    gap: 0 var(--s8);
    border-top: var(--r-hair) solid var(--rule);
    padding-top: var(--s6);
  }
  .one p:first-of-type {
    font-weight: var(--w-strong);
  }
  .one p + p {
    grid-column: 2;
  }
`;

export function Verdict({ view }: { view: ProveView }) {
  const whole = view.pairs.length > 1 ? view.pairs.slice(0, -1) : [];
  const limited = view.sets.filter((s) => s.limited_words !== '' && s.row_gap === '');
  const [last] = limited.slice(-1);
  return (
    <Box>
      <p className="head" role="status">
        {inChosenUnits(view.headline)}
      </p>
      {view.pairs.length > 0 && view.pairs[view.pairs.length - 1]?.more !== '' && (
        <p className="quiet">{inChosenUnits(view.pairs[view.pairs.length - 1]?.more ?? '')}</p>
      )}
      {whole.map((pair) => (
        <div className="one" key={`${pair.first} ${pair.second}`}>
          <Mark state={pair.level} size={18} />
          <p>{inChosenUnits(pair.sentence)}</p>
          {pair.more !== '' && <p className="quiet">{inChosenUnits(pair.more)}</p>}
        </div>
      ))}
      {last && (
        <div className="one">
          <Mark state="note" size={18} />
          <p>
            {capital(last.name)}: {last.limited_words}.
          </p>
          {last.best_m !== null && last.best_expected_m !== null && (
            <p className="quiet">
              The best of {last.n} alone is {written(onRoad(last.best_m))}; luck alone makes it{' '}
              {written(onRoad(last.best_expected_m))}. The mean is the answer.
            </p>
          )}
        </div>
      )}
      <div className="one">
        <Mark state="note" size={18} />
        <p>{inChosenUnits(view.plan.sentence)}</p>
        <p className="quiet">Drive both ways on one road, and let the brakes cool between stops.</p>
      </div>
      {view.pull && (
        <div className="one">
          <Mark state={view.pull.level} size={18} />
          <p>{inChosenUnits(view.pull.sentence)}</p>
          {view.pull.low !== null && view.pull.high !== null && (
            <p className="quiet">
              {view.pull.n} stops of {view.pull.set}, the wheel held straight: left more by{' '}
              {(view.pull.percent ?? 0).toFixed(0)} % of the braking, {view.pull.low.toFixed(0)} to{' '}
              {view.pull.high.toFixed(0)} %.
            </p>
          )}
        </div>
      )}
      {view.valve && (
        <div className="one">
          <Mark state={view.valve.level} size={18} />
          <p>{inChosenUnits(view.valve.sentence)}</p>
          <p className="quiet">
            {counted(view.valve.notes, 'note', 'notes')} of what locked; the turn-over lies between{' '}
            {view.valve.low.toFixed(1)} and {view.valve.high.toFixed(1)} {view.valve.unit}. Write the setting down.
          </p>
        </div>
      )}
    </Box>
  );
}
