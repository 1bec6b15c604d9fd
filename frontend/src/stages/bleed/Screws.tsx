/** The bleed screws in their order: how much comes out, when to fill up, and each one ticked once no bubbles come. */
import { useState } from 'react';
import { Input, Label } from 'react-aria-components';
import styled from 'styled-components';
import type { SchoolView, ScrewView } from '../../api/types';
import { Choose } from '../../ui/Choose';
import { Field } from '../../ui/Field';
import { Mark } from '../../ui/Mark';
import { PlainField } from '../../ui/PlainField';
import { PressButton } from '../../ui/PressButton';
import { signsAs, useSigner } from '../../ui/signer';
import { capital } from '../../units/format';
import type { Bleed } from './useBleed';

const Box = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s8);
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s6) var(--s14);
    align-items: end;
  }
  ol {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    display: grid;
    grid-template-columns: 20px minmax(0, 1fr) auto;
    gap: var(--s2) var(--s8);
    align-items: center;
    border-bottom: var(--r-hair) solid var(--rule);
    padding: var(--s4) 0;
    font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
  }
  li b {
    font: var(--w-strong) var(--t-name) / var(--snug) var(--letter);
    display: block;
  }
  .note {
    display: flex;
    gap: var(--s6);
  }
  .note svg {
    flex: none;
  }
  .presses {
    display: flex;
    flex-wrap: wrap;
    gap: var(--s4);
    justify-content: flex-end;
  }
`;
const SCHOOLS = [
  { id: 'furthest_first', label: 'furthest from the cylinder first' },
  { id: 'nearest_first', label: 'nearest first' },
  { id: 'diagonal', label: 'one circuit after the other, diagonal' },
];
const METHODS = [
  { id: '', label: 'not said' },
  { id: 'pressure', label: 'pressure, 10 to 15 psi' },
  { id: 'two_people', label: 'two people' },
  { id: 'gravity', label: 'gravity' },
  { id: 'vacuum', label: 'vacuum' },
];
const HOW: Record<string, string> = {
  pressure: 'Cap on tight, 10 to 15 psi and no more: look at the reservoir before you open a screw.',
  two_people: 'Push, hold, open, shut, let go: never let go with the screw open. Not to the floor on an old cylinder.',
  gravity: 'Minutes for each screw; keep the reservoir full.',
  vacuum: 'Air past the screw’s thread looks like bubbles: thread grease, or another method.',
};
const FLUIDS = ['', 'DOT 3', 'DOT 4', 'DOT 5', 'DOT 5.1'].map((id) => ({ id, label: id === '' ? 'not known' : id }));

function Screw({ screw, school, bleed }: { screw: ScrewView; school: SchoolView; bleed: Bleed }) {
  const by = useSigner();
  const { bled } = screw;
  const keep = (bubbles: boolean, dry: boolean) =>
    void bleed.record(`bled: ${screw.name}`, 'bled', {
      setup: bleed.view.setup,
      screw: screw.name,
      bubbles,
      ...(dry ? { dry } : {}),
      fluid: bleed.view.fluid,
      ...(by === '' ? {} : { by }),
    });
  const amount = [
    screw.fluid_cm3 === null ? 'amount not known' : `${Math.round(screw.fluid_cm3)} cm³, ${Math.round(screw.fluid_g ?? 0)} g`,
    screw.strokes === null ? '' : `${screw.strokes} strokes`,
    screw.top_up,
  ].filter(Boolean).join('; '); // prettier-ignore
  const state = bled === null ? 'empty' : bled.dry || bled.bubbles === true ? 'doubt' : 'ready';
  const said =
    bled === null
      ? ''
      : bled.dry
        ? 'ran dry: begin again at the cylinder'
        : bled.bubbles === true
          ? 'bubbles still came'
          : 'no bubbles';
  return (
    <li>
      <Mark state={state} size={16} />
      <span>
        <b>{capital(screw.name)}</b>
        {amount}
        {said !== '' && `. ${capital(said)}.`}
      </span>
      <span className="presses noprint">
        {bled === null || state === 'doubt' ? (
          <>
            <PressButton
              data-first=""
              aria-label={`No bubbles: ${school.system} ${screw.name}`}
              onPress={() => keep(false, false)}
            >
              No bubbles
            </PressButton>
            <PressButton
              data-plain=""
              aria-label={`Still bubbles: ${school.system} ${screw.name}`}
              onPress={() => keep(true, false)}
            >
              bubbles
            </PressButton>
            <PressButton
              data-plain=""
              aria-label={`Ran dry: ${school.system} ${screw.name}`}
              onPress={() => keep(true, true)}
            >
              ran dry
            </PressButton>
          </>
        ) : (
          <PressButton
            data-plain=""
            aria-label={`Bleed again: ${school.system} ${screw.name}`}
            onPress={() => void bleed.record(`${screw.name} again`, 'struck', { of: bled.key, why: 'bled again' })}
          >
            again
          </PressButton>
        )}
      </span>
    </li>
  );
}

export function Screws({ bleed }: { bleed: Bleed }) {
  const { view } = bleed;
  const by = useSigner();
  const [more, setMore] = useState(false);
  const put = (label: string, key: string, value: string) =>
    void bleed
      .onEdits(label, [value === '' ? { op: 'remove', path: `/bleed/${key}` } : { path: `/bleed/${key}`, value }])
      .catch(() => undefined);
  const dry = view.schools.some((s) => s.screws.some((w) => w.bled?.dry));
  return (
    <Box>
      <div className="row noprint">
        {view.schools.some((s) => s.screws.length > 1) && (
          <Choose
            label="order"
            value={view.school}
            options={SCHOOLS}
            onChange={(id) => put('order of the screws', 'school', id)}
          />
        )}
        <Choose
          label="how"
          value={view.method}
          options={METHODS}
          onChange={(id) => put('how it is bled', 'method', id)}
        />
        <Choose
          label="fluid that is in"
          value={view.fluid_in}
          options={FLUIDS}
          onChange={(id) => put('fluid that is in', 'fluid_in', id)}
        />
        <PlainField value={by} onChange={signsAs} maxLength={60}>
          <Label>who bleeds</Label>
          <Input autoComplete="name" placeholder="initials" />
        </PlainField>
      </div>
      {HOW[view.method] !== undefined && <p className="quiet">{HOW[view.method]}</p>}
      {dry && (
        <p className="note" role="alert">
          <Mark state="danger" size={18} />
          The reservoir ran dry: air stands in the cylinder. Begin again, the cylinder first.
        </p>
      )}
      {view.schools.map((school) => (
        <div key={school.system}>
          <h3>
            {view.schools.length > 1 ? capital(school.system) : 'Screws in their order'}
            {school.total_cm3 !== null &&
              `: ${Math.round(school.total_cm3)} cm³ ${view.fluid} in all${school.total_g === null ? '' : `, ${Math.round(school.total_g)} g`}${school.strokes === null ? '' : `, ${school.strokes} strokes`}`}
          </h3>
          {school.refused !== '' && <p role="alert">{school.refused}</p>}
          <ol>
            {school.screws.map((screw) => (
              <Screw key={screw.name} screw={screw} school={school} bleed={bleed} />
            ))}
          </ol>
          {school.warnings.map((w) => (
            <p key={w.words} className="note quiet">
              <Mark state={w.level} size={15} />
              {w.words}
            </p>
          ))}
        </div>
      ))}
      <div className="noprint">
        <PressButton data-plain="" aria-expanded={more} onPress={() => setMore(!more)}>
          {more ? 'less' : 'reservoir, low mark, what one push moves'}
        </PressButton>
      </div>
      {more && (
        <div className="row noprint">
          {(
            [
              ['reservoir holds', 'reservoir_cm3', view.reservoir],
              ['low mark at', 'low_mark_cm3', view.low_mark],
              ['one push moves', 'stroke_volume_cm3', view.stroke],
            ] as const
          ).map(([label, key, value]) => (
            <Field
              key={key}
              saysRefused
              label={label}
              value={value}
              placeholder="cm³"
              onCommit={(text) => bleed.onEdits(label, [{ path: `/bleed/${key}`, text }])}
            />
          ))}
        </div>
      )}
    </Box>
  );
}
