/** Bed: the pads' recipe, where it takes the rotors, and a passenger who keeps the count. */
import { useState } from 'react';
import styled from 'styled-components';
import { BedHeat } from '../../charts/BedHeat';
import { Missing } from '../../page/Missing';
import type { StageProps } from '../../page/StagePage';
import { WorkPage } from '../../page/WorkPage';
import { DataTable } from '../../ui/DataTable';
import { Mark } from '../../ui/Mark';
import { PressButton } from '../../ui/PressButton';
import { useWidth } from '../../ui/useWidth';
import { capital } from '../../units/format';
import { Passenger } from './Passenger';
import { Recipe } from './Recipe';
import { useBed, type Bed } from './useBed';
import { heatOf, longWay, speedOf, written } from '../../units/display';
import { inChosenUnits } from '../../units/sentences';

const Body = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  > div > section + section,
  &:not([data-wide]) > div + div {
    border-top: var(--r-hair) solid var(--ink);
  }
  .note {
    display: flex;
    gap: var(--s6);
  }
  .note svg {
    flex: none;
  }
  &[data-wide] {
    grid-template-columns: minmax(0, 1fr) 400px;
  }
  &[data-wide] > div + div {
    border-left: var(--r-hair) solid var(--rule);
    padding-left: var(--s16);
    margin-left: var(--s16);
  }
  &:not([data-wide]) > div + div {
    order: -1;
  }
`;
const degrees = (c: number | null) => (c === null ? '' : written(heatOf(c)));
const number = (text: string) => (text === '' ? null : parseFloat(text));

function Heat({ bed }: { bed: Bed }) {
  const { view } = bed;
  const [ref, width] = useWidth<HTMLDivElement>(640);
  const [table, setTable] = useState(false);
  const known = view.heat.filter((h) => h.known);
  const said = known.map((h) => `${h.name} up to ${degrees(h.peak_c)}`).join(', ');
  return (
    <section aria-label="How hot it gets" ref={ref}>
      <h2>
        How hot it gets
        <em>
          {view.needed_m !== null && `${written(longWay(view.needed_m))} of road`}
          {view.whole_s !== null && `, ${Math.round(view.whole_s / 60)} min with cooling`}
        </em>
      </h2>
      {known.length === 0 ? (
        <p>Rotor mass and cooling area are not known: no temperature is predicted. They are entered in Measure.</p>
      ) : table ? (
        <DataTable
          caption="Slow-downs"
          head={['number', 'from', 'to', ...known.flatMap((h) => [`${h.name} before`, `${h.name} hottest`]), 'road']}
          rows={view.slow_downs.map((s) => [
            String(s.number),
            written(speedOf(s.from_kmh)),
            written(speedOf(s.to_kmh)),
            ...known.flatMap((h) => {
              const rotor = s.rotors[h.name];
              return [degrees(rotor?.start_c ?? null), degrees(rotor?.peak_c ?? null)];
            }),
            `${Math.round(s.ends_at_m)} m${s.fits ? '' : ', beyond the road'}`,
          ])}
        />
      ) : (
        <BedHeat
          slowDowns={view.slow_downs.map((s) => ({ ...s, driven: s.driven !== null }))}
          stations={known.map((h, i) => ({
            name: h.name,
            low: number(h.window_low),
            high: number(h.window_high),
            cooled: h.after_cooling_c,
            as: i === 0 ? 'plan-thin' : 'edge',
          }))}
          wholeS={view.whole_s ?? 1}
          width={width}
          height={300}
          description={`Rotor temperatures over the recipe: ${said}`}
        />
      )}
      {view.cautions.map((c) => (
        <p key={`${c.id} ${c.words}`} className="note">
          <Mark state={c.level} size={16} />
          {inChosenUnits(c.words)}
        </p>
      ))}
      {known.map((h) => (
        <p key={h.name} className="quiet">
          {capital(h.name)}: hottest {degrees(h.peak_c)}, after the last {degrees(h.after_last_c)}, after cooling{' '}
          {degrees(h.after_cooling_c)}
          {h.cool_to_s !== null && `; cool after ${Math.round(h.cool_to_s / 60)} min`}.
        </p>
      ))}
      <PressButton className="noprint" data-plain="" onPress={() => setTable(!table)}>
        {table ? 'plot' : 'table'}
      </PressButton>
    </section>
  );
}

export function BedPage({ job, view: stored, stages }: StageProps<'bed'>) {
  const bed = useBed(job, stored);
  const { view, steps } = bed;
  return (
    <WorkPage
      job={job}
      stages={stages}
      stage="bed"
      title="Bed"
      setup={view.setup}
      said={
        view.slow_downs.length === 0
          ? 'The pads’ recipe, from their maker.'
          : `${view.driven} of ${view.slow_downs.length} slow-downs driven`
      }
      onSetup={bed.onSetup}
      steps={steps}
      cautions={`The driver drives, the passenger holds this. An empty road, nobody behind; road law first. Hot rotors burn. No full stop with hot pads, no dragging. ${view.certified ? 'Aircraft: by certified persons only, within the maker’s limits for brake energy.' : ''}`}
    >
      {(wide) => (
        <Body data-wide={wide || undefined}>
          <div>
            {view.needs > 0 && <Missing job={job.id} what="No stop can be predicted yet" n={view.needs} />}
            {view.refused !== '' && <p role="alert">{view.refused}</p>}
            {view.slow_downs.length > 0 && <Heat bed={bed} />}
            <section aria-label="Recipe">
              <h2>
                Recipe
                <em>as the pad’s maker has it; none is given here</em>
              </h2>
              <Recipe key={view.setup} bed={bed} />
            </section>
          </div>
          <div>
            <section aria-label="Passenger">
              <h2>Passenger</h2>
              <Passenger bed={bed} />
            </section>
          </div>
        </Body>
      )}
    </WorkPage>
  );
}
