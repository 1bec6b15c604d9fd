/** What may change and over what, what stays, what must hold, and what is wanted. */
import { useState } from 'react';
import { Button, ToggleButton } from 'react-aria-components';
import { useSearchParams } from 'react-router';
import styled from 'styled-components';
import { ToggleRow } from '../../ui/ToggleRow';
import { percent } from '../../units/format';
import { asItStays, axlesOf, groupsOf, NAMES, summary, ticked, typedOr, type Group } from './search';
import { Entry } from './Entry';
import { Parts } from './Parts';
import { Tick } from '../../ui/Tick';
import type { Matching } from './useMatch';
import { lengthOf, written } from '../../units/display';

const Own = styled.div`
  display: flex;
  flex-direction: column;
  gap: var(--s12);
  h2 {
    font: var(--w-strong) var(--t-head) / var(--snug) var(--letter);
    border-bottom: var(--r-hair) solid var(--ink);
    padding-bottom: var(--s4);
  }
  ul {
    list-style: none;
    padding: 0;
  }
  .say {
    color: var(--ink-2);
  }
`;
const Item = styled.li`
  border-bottom: var(--r-hair) solid var(--rule);
  padding: var(--s3) 0 var(--s4);
  .top {
    display: grid;
    grid-template-columns: 23px minmax(0, 1fr) auto;
    align-items: center;
  }
  .top b {
    font: var(--w-strong) var(--t-name) / var(--tight) var(--letter);
  }
  .top em {
    font: var(--w-firm) var(--t-text) / var(--tight) var(--letter);
    color: var(--ink-2);
    font-style: normal;
    text-align: right;
    max-width: 120px;
  }
  &[data-stays] .top b {
    font-weight: var(--w-firm);
    color: var(--found);
  }
  .over {
    display: block;
    width: 100%;
    text-align: left;
    border: 0;
    background: none;
    padding: 0 0 0 23px;
    font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
    color: var(--ink-2);
    text-decoration: underline;
    text-decoration-color: var(--rule);
    text-underline-offset: var(--s3);
  }
  .fields {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: var(--s8) var(--s10);
    align-items: end;
    padding: var(--s6) 0;
  }
  .fields > .whole {
    grid-column: 1 / -1;
  }
  .fields input {
    width: 100%;
  }
  @media (pointer: coarse) {
    .over {
      min-height: var(--target);
    }
  }
`;
const number = (text: string) => (text === '' ? null : Number.isFinite(Number(text)) ? Number(text) : text);

function BoreFields({ matching }: { matching: Matching }) {
  const { search, act, choices } = matching;
  const sizes = (search.bores?.sizes_mm ?? []).map((s) => typedOr(s, 'mm'));
  const all = [...choices.standard_bores, ...sizes.filter((s) => !choices.standard_bores.includes(s))];
  return (
    <>
      <ToggleRow
        className="whole"
        data-apart=""
        aria-label="Bores to try"
        selectionMode="multiple"
        disallowEmptySelection
        selectedKeys={sizes}
        onSelectionChange={(keys) =>
          act({ do: 'set', group: 'bores', change: { sizes_mm: all.filter((s) => keys.has(s)) } })
        }
      >
        {all.map((s) => (
          <ToggleButton key={s} id={s}>
            {s.replace(' in', '')}
          </ToggleButton>
        ))}
      </ToggleRow>
      <Entry
        label="another bore"
        value=""
        hint="23.5 mm"
        onTake={(text) => text && act({ do: 'set', group: 'bores', change: { sizes_mm: [...sizes, text] } })}
      />
      <Entry
        label="price of one"
        hint="not known"
        value={typedOr(search.bores?.price)}
        onTake={(text) => act({ do: 'set', group: 'bores', change: { price: number(text) } })}
      />
    </>
  );
}

/** Of several controls, which one is searched. */
function Controls({ matching }: { matching: Matching }) {
  const [params, setParams] = useSearchParams();
  const { controls } = matching.choices;
  return (
    <section aria-label="Which control">
      <h2>Which control</h2>
      <ToggleRow
        aria-label="Control that is searched"
        disallowEmptySelection
        selectedKeys={[matching.search.control ?? controls[0] ?? '']}
        onSelectionChange={(keys) => {
          const [control] = keys;
          if (control !== undefined) setParams({ ...Object.fromEntries(params), control: String(control) });
        }}
      >
        {controls.map((c) => (
          <ToggleButton key={c} id={c}>
            {c}
          </ToggleButton>
        ))}
      </ToggleRow>
      <p className="say">One control at a time, pressed alone; the others stay as they are.</p>
    </section>
  );
}

function Fields({ group, matching }: { group: Group; matching: Matching }) {
  const { search, act } = matching;
  const entry = (of: 'pins' | 'valve' | 'bar', field: string, label: string, hint = '') => {
    const value = (search[of] as Record<string, string | number | undefined> | null | undefined)?.[field];
    const plain = field === 'price' || of === 'bar' || field === 'slope';
    return (
      <Entry
        key={field}
        label={label}
        hint={hint}
        value={typedOr(value, plain ? '' : of === 'valve' ? 'kPa' : 'mm')}
        onTake={(text) =>
          act({ do: 'set', group: of, change: { [field]: plain ? number(text) : text === '' ? null : text } })
        }
      />
    );
  };
  switch (group) {
    case 'pins':
      return (
        <>
          {entry('pins', 'least_mm', 'from the pivot')}
          {entry('pins', 'most_mm', 'to')}
          {entry('pins', 'step_mm', 'by')}
        </>
      );
    case 'bores':
      return <BoreFields matching={matching} />;
    case 'front':
    case 'rear':
      return (
        <div className="whole">
          <Parts axle={group} matching={matching} />
        </div>
      );
    case 'valve':
      return (
        <>
          {entry('valve', 'least_kpa', 'knee from ')}
          {entry('valve', 'most_kpa', 'to')}
          {entry('valve', 'step_kpa', 'by')}
          {entry('valve', 'slope', 'slope', '0.43')}
          {entry('valve', 'price', 'price of one', 'not known')}
          <Tick
            on={search.valve?.without ?? true}
            onChange={(on) => act({ do: 'set', group: 'valve', change: { without: on } })}
          >
            none too
          </Tick>
        </>
      );
    case 'bar':
      return (
        <>
          {entry('bar', 'least_share', 'front’s share from ')}
          {entry('bar', 'most_share', 'to')}
          {entry('bar', 'step_share', 'by')}
        </>
      );
    case 'booster':
      return null;
  }
}

function GroupItem({ group, matching }: { group: Group; matching: Matching }) {
  const { search, act, choices } = matching;
  const on = ticked(search, group);
  const [open, setOpen] = useState(false);
  const fields = on && group !== 'booster';
  return (
    <Item data-stays={on ? undefined : ''}>
      <div className="top">
        <Tick on={on} label={`${NAMES[group]} may change`} onChange={() => act({ do: 'tick', group, choices })} />
        <b>{NAMES[group]}</b>
        <em>{on ? '' : asItStays(choices, group)}</em>
      </div>
      {on && (
        <Button
          className="over"
          aria-expanded={fields ? open : undefined}
          aria-label={`${NAMES[group]}: ${summary(search, group)}`}
          isDisabled={!fields}
          onPress={() => setOpen(!open)}
        >
          {summary(search, group)}
        </Button>
      )}
      {fields && open && (
        <div className="fields">
          <Fields group={group} matching={matching} />
        </div>
      )}
    </Item>
  );
}

export function Rail({ matching }: { matching: Matching }) {
  const { search, act, choices } = matching;
  const groups = groupsOf(choices);
  const change = groups.filter((g) => ticked(search, g));
  const stay = groups.filter((g) => !ticked(search, g));
  const limit = (
    field: Exclude<keyof Matching['search']['limits'], 'sharing'>,
    label: string,
    hint: string,
    plain = false,
  ) => (
    <Entry
      key={field}
      label={label}
      hint={hint}
      value={typedOr(search.limits[field])}
      onTake={(text) => act({ do: 'limits', change: { [field]: plain ? number(text) : text === '' ? null : text } })}
    />
  );
  const wanted = (field: keyof Matching['search']['wanted'], label: string, hint: string, plain = false) => (
    <Entry
      key={field}
      label={label}
      hint={hint}
      value={
        field.endsWith('weight') && !search.wanted
          ? ''
          : typedOr((search.wanted as Record<string, string | number | undefined>)[field])
      }
      onTake={(text) =>
        act({ do: 'wanted', change: { [field]: plain ? (number(text) ?? 1) : text === '' ? null : text } })
      }
    />
  );
  const [liked, setLiked] = useState(search.wanted.effort_n != null || search.wanted.travel_mm != null);
  return (
    <Own>
      {choices.controls.length > 1 && <Controls matching={matching} />}
      <section aria-label="What may change">
        <h2>What may change</h2>
        <ul>
          {change.map((g) => (
            <GroupItem key={g} group={g} matching={matching} />
          ))}
        </ul>
        {change.length === 0 && <p className="say">Nothing: tick what you would change.</p>}
      </section>
      {stay.length > 0 && (
        <section aria-label="What stays">
          <h2>What stays</h2>
          <ul>
            {stay.map((g) => (
              <GroupItem key={g} group={g} matching={matching} />
            ))}
          </ul>
        </section>
      )}
      <section aria-label="What must hold">
        <h2>What must hold</h2>
        <Item as="div">
          <div className="fields">
            {limit('effort_n', 'push below', `${choices.effort_limit_n} N`)}
            {limit('travel_share', 'travel below', percent(choices.travel_limit_share))}
            {limit('first_lock_g', 'wheels must not lock before', `${choices.decel_g.toFixed(2)} g`)}
            {limit('price', 'price below', 'no limit', true)}
            {axlesOf(choices).includes('front') &&
              limit('largest_rotor_front_mm', 'rotor, front', rim(choices.rims_mm, 'front'))}
            {axlesOf(choices).includes('rear') &&
              limit('largest_rotor_rear_mm', 'rotor, rear', rim(choices.rims_mm, 'rear'))}
          </div>
          {choices.car && (
            <Tick on={search.limits.sharing} onChange={(on) => act({ do: 'limits', change: { sharing: on } })}>
              the sharing rule for cars
            </Tick>
          )}
        </Item>
        <p className="say">
          Always: {axlesOf(choices).length > 1 ? 'the front locks first on every road and in every load, ' : ''}no
          chamber is spent
          {choices.car ? ', and what a lost circuit leaves is enough' : ''}. A rotor must be smaller than the rim;
          measure the room inside the wheel.
        </p>
      </section>
      <section aria-label="What is wanted">
        <h2>What is wanted</h2>
        <Tick
          on={liked}
          onChange={(on) => {
            setLiked(on);
            if (!on) act({ do: 'wanted', change: { effort_n: null, travel_mm: null } });
          }}
        >
          a certain push or travel
        </Tick>
        {liked && (
          <Item as="div">
            <div className="fields">
              {wanted('effort_n', 'push', '280 N')}
              {wanted('effort_weight', 'counts', '1', true)}
              {wanted('travel_mm', 'travel', '80 mm')}
              {wanted('travel_weight', 'counts', '1', true)}
            </div>
          </Item>
        )}
      </section>
      <p className="say noprint">
        Change any of these and the search starts again; the last result stays until the new one is whole.
      </p>
    </Own>
  );
}

const rim = (rims: Record<string, number>, axle: string) => {
  const mm = rims[axle];
  return mm === undefined ? 'not known' : written(lengthOf(mm));
};
