/** The recipe as it stands on the pad maker's sheet: typed stage by stage, none given by us. */
import { useState } from 'react';
import { Input, Label } from 'react-aria-components';
import styled from 'styled-components';
import { Field } from '../../ui/Field';
import { PlainField } from '../../ui/PlainField';
import { PressButton } from '../../ui/PressButton';
import type { Bed } from './useBed';

const Box = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s8);
  form,
  .row {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(118px, 1fr));
    gap: var(--s6) var(--s12);
    align-items: end;
  }
  .row > * {
    display: grid;
  }
  input {
    width: 100%;
  }
  .wide {
    grid-column: span 2;
  }
  .stage {
    border-top: var(--r-hair) solid var(--rule);
    padding-top: var(--s6);
  }
`;
const FIELDS = [
  ['from_kmh', 'from', '80 km/h'],
  ['to_kmh', 'to', '30 km/h'],
  ['decel_g', 'how hard', '0.35 g'],
  ['gap_s', 'gap', '45 s'],
  ['gap_m', 'or gap', 'm'],
  ['cool_s', 'then cool', 's'],
  ['cool_kmh', 'cooling at', 'km/h'],
] as const;
type Key = (typeof FIELDS)[number][0] | 'count';
const EMPTY: Record<Key, string> = { from_kmh: '', to_kmh: '', decel_g: '', gap_s: '', gap_m: '', cool_s: '', cool_kmh: '', count: '' }; // prettier-ignore

export function Recipe({ bed }: { bed: Bed }) {
  const { view } = bed;
  const [typed, setTyped] = useState(EMPTY);
  const [refused, setRefused] = useState('');
  async function add() {
    setRefused('');
    const value: Record<string, unknown> = { count: Number(typed.count) };
    for (const [key] of FIELDS) if (typed[key].trim() !== '') value[key] = typed[key].trim();
    try {
      await bed.onEdits('a stage of the recipe', [{ op: 'insert', path: '/bed/stages/-', value }]);
      setTyped(EMPTY);
    } catch (error) {
      setRefused(error instanceof Error ? error.message : 'It was refused.');
    }
  }
  return (
    <Box>
      <div className="row">
        <Field
          saysRefused
          className="wide"
          label="from whom"
          value={view.source}
          placeholder="the pad’s sheet"
          onCommit={(text) => bed.onEdits('where the recipe is from', [{ path: '/bed/source', text }])}
        />
        <Field
          saysRefused
          label="road there is"
          value={view.road}
          placeholder="9 km"
          onCommit={(text) => bed.onEdits('the road', [{ path: '/bed/road_m', text }])}
        />
        <Field
          saysRefused
          label="air"
          value={view.ambient}
          placeholder="20 °C"
          onCommit={(text) => bed.onEdits('the air', [{ path: '/bed/ambient_c', text }])}
        />
        <Field
          saysRefused
          label="cool down to"
          value={view.cool_to}
          placeholder="100 °C"
          onCommit={(text) => bed.onEdits('cool down to', [{ path: '/bed/cool_to_c', text }])}
        />
      </div>
      {view.stages.map((stage) => (
        <div key={stage.at} className="stage">
          <h3>
            Stage {stage.at + 1}{' '}
            <PressButton
              data-plain=""
              aria-label={`Take out stage ${stage.at + 1}`}
              onPress={() =>
                void bed
                  .onEdits(`stage ${stage.at + 1} out`, [{ op: 'remove', path: `/bed/stages/${stage.at}` }])
                  .catch(() => undefined)
              }
            >
              out
            </PressButton>
          </h3>
          <div className="row">
            <Field
              saysRefused
              label="slow-downs"
              name={`stage ${stage.at + 1}: slow-downs`}
              value={String(stage.count)}
              onCommit={(text) => bed.onEdits('slow-downs', [{ path: `/bed/stages/${stage.at}/count`, text }])}
            />
            {FIELDS.map(([key, label, hint]) => (
              <Field
                key={key}
                saysRefused
                label={label}
                name={`stage ${stage.at + 1}: ${label}`}
                value={stage[key]}
                placeholder={hint}
                onCommit={(text) => bed.onEdits(label, [{ path: `/bed/stages/${stage.at}/${key}`, text }])}
              />
            ))}
          </div>
        </div>
      ))}
      <form
        className="stage"
        onSubmit={(event) => {
          event.preventDefault();
          void add();
        }}
      >
        <PlainField value={typed.count} onChange={(count) => setTyped({ ...typed, count })}>
          <Label>slow-downs</Label>
          <Input placeholder="8" inputMode="numeric" autoComplete="off" />
        </PlainField>
        {FIELDS.map(([key, label, hint]) => (
          <PlainField key={key} value={typed[key]} onChange={(text) => setTyped({ ...typed, [key]: text })}>
            <Label>{label}</Label>
            <Input placeholder={hint} autoComplete="off" />
          </PlainField>
        ))}
        <PressButton type="submit" data-first="">
          Add a stage
        </PressButton>
      </form>
      {refused !== '' && <p role="alert">{refused}</p>}
      {view.heat.some((h) => h.known) && (
        <div>
          <h3>What the pads want, from their maker</h3>
          {view.heat
            .filter((h) => h.known)
            .map((h) => (
              <div className="row" key={h.name}>
                {(
                  [
                    ['window_low_c', `${h.name}, from`, h.window_low],
                    ['window_high_c', `${h.name}, to`, h.window_high],
                    ['most_c', `${h.name}, never above`, h.most],
                  ] as const
                ).map(([key, label, value]) => (
                  <Field
                    key={key}
                    saysRefused
                    label={label}
                    value={value}
                    placeholder="°C"
                    onCommit={(text) => bed.onEdits(label, [{ path: `/bed/pads/${h.name}/${key}`, text }])}
                  />
                ))}
              </div>
            ))}
        </div>
      )}
    </Box>
  );
}
