/** Heat: how hot each rotor gets in a series of slow-downs, against what the fluid bears. */
import { memo, useState } from 'react';
import { Input, Label, TextField } from 'react-aria-components';
import styled from 'styled-components';
import { useHeat } from '../../api/size';
import { Peaks } from '../../charts/Peaks';
import { Plotted } from '../../ui/DataTable';
import { useWidth } from '../../ui/useWidth';
import { heatTable } from './tables';
import type { Reading } from './useSize';
import { heatOf, written } from '../../units/display';

const Recipe = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: var(--s2) var(--s8);
  .react-aria-TextField {
    display: flex;
    align-items: baseline;
    gap: var(--s4);
  }
  .react-aria-Label {
    color: var(--ink-2);
  }
  input {
    border: 0;
    border-bottom: var(--r-outline) solid var(--ink);
    background: var(--sunk);
    width: 84px;
    padding: 0 var(--s4);
    min-height: var(--s20);
    font: var(--w-firm) var(--t-name) / 1 var(--letter);
  }
  input[data-short] {
    width: 34px;
  }
  @media (pointer: coarse) {
    input {
      min-height: var(--target);
    }
  }
`;
const FIELDS = [
  { key: 'speed_from_kmh', label: 'from' },
  { key: 'speed_to_kmh', label: 'to' },
  { key: 'cooling_time_s', label: 'pause' },
  { key: 'cooling_speed_kmh', label: 'at' },
] as const;
const FIRST = {
  speed_from_kmh: '100 km/h',
  speed_to_kmh: '20 km/h',
  cooling_time_s: '30 s',
  cooling_speed_kmh: '60 km/h',
  stops: 10,
};

type HeatProps = Pick<Reading, 'job' | 'setup' | 'load' | 'trying'> & { height: number };
export const HeatView = memo(function HeatView({ job, setup, load, trying, height }: HeatProps) {
  const [ref, width] = useWidth<HTMLDivElement>(330);
  const [recipe, setRecipe] = useState(FIRST);
  const [draft, setDraft] = useState({ ...FIRST, stops: String(FIRST.stops) });
  const heat = useHeat(job.id, job.revision, { setup: trying ? '' : setup.key, load, ...recipe });
  const take = () => {
    const stops = Math.min(100, Math.max(1, Number.parseInt(draft.stops, 10) || recipe.stops));
    setDraft({ ...draft, stops: String(stops) });
    setRecipe({ ...draft, stops });
  };
  const rows = Object.entries(heat.data ?? {});
  const known = rows.filter(([, r]) => r.peaks_c);
  const drawn = known.map(([name, r]) => ({ name, peaks: r.peaks_c ?? [], starts: r.starts_c ?? [] }));
  const worst = known.reduce((most, [, r]) => Math.max(most, ...(r.peaks_c ?? [])), 0);
  const margin = Math.min(...known.map(([, r]) => r.fluid_margin_k ?? Infinity));
  return (
    <>
      <Recipe>
        <TextField value={draft.stops} onChange={(stops) => setDraft({ ...draft, stops })}>
          <Input data-short="" inputMode="numeric" onBlur={take} onKeyDown={(e) => e.key === 'Enter' && take()} />
          <Label>slow-downs</Label>
        </TextField>
        {FIELDS.map((f) => (
          <TextField key={f.key} value={draft[f.key]} onChange={(text) => setDraft({ ...draft, [f.key]: text })}>
            <Label>{f.label}</Label>
            <Input onBlur={take} onKeyDown={(e) => e.key === 'Enter' && take()} />
          </TextField>
        ))}
      </Recipe>
      {heat.isError && <p role="alert">{heat.error.message}</p>}
      {known.length > 0 && (
        <p>
          Hottest {written(heatOf(worst))}; the fluid, by our estimate, {Math.round(Math.abs(margin))} K{' '}
          {margin >= 0 ? 'below' : 'ABOVE'} its wet boiling point.
        </p>
      )}
      {rows
        .filter(([, r]) => !r.peaks_c)
        .map(([name, r]) => (
          <p key={name}>
            {name}: {r.reason}.
          </p>
        ))}
      <div className="plot" ref={ref}>
        {known.length > 0 && (
          <Plotted table={() => heatTable(drawn)}>
            <Peaks
              width={width}
              height={Math.max(110, height - 104)}
              rows={drawn}
              description={`Rotor temperatures: ${known.map(([name, r]) => `${name} up to ${written(heatOf(Math.max(...(r.peaks_c ?? [0]))))}`).join('; ')}.`}
            />
          </Plotted>
        )}
      </div>
    </>
  );
});
