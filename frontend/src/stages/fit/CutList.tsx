/** The cut list of the hard lines: what to cut, how it bends, out of which lengths; printed, it hangs on the wall beside the bender. */
import styled from 'styled-components';
import type { TubeView } from '../../api/types';
import { Choose } from '../../ui/Choose';
import { Field } from '../../ui/Field';
import { Mark } from '../../ui/Mark';
import { PressButton } from '../../ui/PressButton';

import type { Fit } from './useFit';
import { lengthOf, written } from '../../units/display';
import { inChosenUnits } from '../../units/sentences';

const Box = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s8);
  article {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: var(--s6);
    border-top: var(--r-hair) solid var(--rule);
    padding-top: var(--s6);
  }
  .typed {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(124px, 1fr));
    gap: var(--s6) var(--s12);
    align-items: end;
  }
  .sized {
    display: grid;
  }
  .way {
    grid-column: 1 / -1;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s6) var(--s14);
    align-items: end;
  }
  .note {
    display: flex;
    gap: var(--s6);
  }
  .note svg {
    flex: none;
  }
  .tag {
    border: var(--r-hair) solid var(--ink);
    padding: var(--s2) var(--s8);
    justify-self: start;
    font: var(--w-strong) var(--t-name) / var(--read) var(--letter);
  }
`;
const ENDS = [
  { id: 'none', label: 'cut square' },
  { id: 'inverted_45_double', label: '45° double flare' },
  { id: 'flare_45', label: '45° single flare' },
  { id: 'an_37', label: '37° single flare' },
  { id: 'bubble', label: 'bubble flare' },
];
const METALS = [
  { id: 'steel', label: 'coated steel' },
  { id: 'copper_nickel', label: 'copper-nickel' },
  { id: 'stainless', label: 'stainless' },
];

function Tube({ tube, fit }: { tube: TubeView; fit: Fit }) {
  const path = `fit.tubing.tubes.${tube.at}`;
  const choose = (key: string, id: string) =>
    fit.onPut(`${tube.name}: ${key}`, `${path}.${key}`, id === 'none' ? null : id);
  return (
    <article aria-label={tube.name}>
      <div className="typed noprint">
        <Field
          className="sized"
          saysRefused
          label="line"
          value={tube.name}
          onCommit={(text) => fit.onType('name of a line', `${path}.name`, text)}
        />
        <Field
          className="sized"
          saysRefused
          label="outside"
          name={`${tube.name}: outside`}
          value={tube.outer}
          placeholder={tube.usual_outer}
          onCommit={(text) => fit.onType(`${tube.name}: outside`, `${path}.outer_mm`, text, 'mm')}
        />
        <Choose label="metal" value={tube.material} options={METALS} onChange={(id) => choose('material', id)} />
        <Choose label="begins" value={tube.start} options={ENDS} onChange={(id) => choose('start', id)} />
        <Choose label="ends" value={tube.end} options={ENDS} onChange={(id) => choose('end', id)} />
        <Field
          className="sized way"
          saysRefused
          label="its way: straights and bends in their order"
          name={`${tube.name}: way`}
          value={tube.way}
          placeholder="300, 90° r 20, 450"
          onCommit={(text) => fit.onType(`${tube.name}: way`, `${path}.way`, text)}
        />
      </div>
      {tube.refused !== '' && <p role="alert">{tube.refused}</p>}
      {tube.tag !== '' && <p className="tag">{tube.tag}</p>}
      {tube.bends.length > 0 && <p className="quiet">Bends in their order: {tube.bends.join(', ')}.</p>}
      {tube.notes.map((note) => (
        <p key={note} className="note">
          <Mark state="caution" size={14} />
          {inChosenUnits(note)}
        </p>
      ))}
      <PressButton
        className="noprint"
        data-plain=""
        aria-label={`Leave out ${tube.name}`}
        onPress={() => fit.onEdits(`${tube.name} left out`, [{ op: 'remove', path: `/fit/tubing/tubes/${tube.at}` }])}
      >
        leave out
      </PressButton>
    </article>
  );
}

export function CutList({ fit }: { fit: Fit }) {
  const list = fit.view.cutlist;
  const { tubes, stock, pieces } = list;
  const free = (() => {
    for (let n = tubes.length + 1; ; n += 1) if (!tubes.some((t) => t.name === `line ${n}`)) return `line ${n}`;
  })();
  const add = (value: Record<string, unknown>, at: 'tubes' | 'stock', label: string) =>
    fit.onEdits(label, [{ op: 'insert', path: `/fit/tubing/${at}/-`, value }]);
  return (
    <Box>
      <h2>
        Hard lines to cut
        <em>{tubes.length === 0 ? '' : `in all ${written(lengthOf(list.total_cut_mm))}; flares take what our table says: cut a trial`}</em>
      </h2>
      {tubes.length === 0 && (
        <p>Lay a wire where the line shall go, straighten it between its bends, and type what you measure.</p>
      )}
      {tubes.map((tube) => (
        <Tube key={tube.at} tube={tube} fit={fit} />
      ))}
      {list.refused !== '' && <p role="alert">{list.refused}</p>}
      {pieces.length > 0 && (
        <p>
          {pieces.map((p, n) => `Length ${n + 1}: ${p.lines.join(', ')}, ${written(lengthOf(p.left_mm, 1))} left`).join('. ')}.
        </p>
      )}
      {list.unplaced.length > 0 && stock.length > 0 && (
        <p className="note">
          <Mark state="caution" size={14} />
          No length is left for {list.unplaced.join(', ')}.
        </p>
      )}
      <div className="row noprint">
        <PressButton
          data-first=""
          onPress={() => add({ name: free, start: 'inverted_45_double', end: 'inverted_45_double' }, 'tubes', 'a hard line added')}
        >
          Add a line
        </PressButton>
        {stock.map((s) => (
          <Field
            key={s.at}
            className="sized"
            saysRefused
            label={`to cut from${stock.length > 1 ? ` ${s.at + 1}` : ''}`}
            value={s.length}
            onCommit={(text) =>
              text.trim() === ''
                ? Promise.resolve(fit.onEdits('a length left out', [{ op: 'remove', path: `/fit/tubing/stock/${s.at}` }]))
                : fit.onType('length to cut from', `fit.tubing.stock.${s.at}.length_mm`, text, 'mm')
            }
          />
        ))}
        <PressButton data-plain="" onPress={() => add({ length_mm: '7.5 m' }, 'stock', 'a length to cut from')}>
          {stock.length === 0 ? 'cut from a coil of 7.5 m' : 'another length to cut from'}
        </PressButton>
      </div>
    </Box>
  ); // prettier-ignore
}
