/** The parts of one axle that are tried: what is fitted, the job's shelf, and common sizes by class. */
import { useState } from 'react';
import { Button } from 'react-aria-components';
import styled from 'styled-components';
import type { ShelfPart } from '../../api/types';
import { OWN, type Axle } from './search';
import { NewPart } from './NewPart';
import { Tick } from '../../ui/Tick';
import type { Matching } from './useMatch';

const Box = styled.div`
  display: grid;
  gap: var(--s6);
  h3 {
    font: var(--w-strong) var(--t-text) / var(--tight) var(--text);
    margin-top: var(--s4);
  }
  .list {
    max-height: 186px;
    overflow-y: auto;
    scrollbar-width: thin;
    border: var(--r-hair) solid var(--rule);
    padding: var(--s2) var(--s6);
  }
  .list > p {
    color: var(--ink-2);
    padding-top: var(--s4);
  }
  button.more {
    justify-self: start;
    border: var(--r-outline) solid var(--ink);
    background: none;
    min-height: var(--s28);
    padding: 0 var(--s8);
    font: var(--w-firm) var(--t-text) / var(--one) var(--text);
  }
  @media (pointer: coarse) {
    button.more {
      min-height: var(--target);
    }
  }
`;
const KINDS = [
  ['calipers', 'caliper', 'Calipers'],
  ['rotors', 'rotor', 'Rotors'],
  ['pads', 'pad', 'Pads'],
] as const;

const labelOf = (part: ShelfPart) =>
  part.on_hand ? `${part.name}, on hand` : part.price != null ? `${part.name}, ${part.price}` : part.name;

export function Parts({ axle, matching }: { axle: Axle; matching: Matching }) {
  const { choices, search, act } = matching;
  const [adding, setAdding] = useState(false);
  const fits = (part: ShelfPart, kind: string) => part.kind === kind && (part.axle == null || part.axle === axle);
  const fitted = choices.own.find((o) => o.axle === axle);
  return (
    <Box>
      {KINDS.map(([field, kind, title]) => {
        const chosen = search[axle]?.[field] ?? [OWN];
        const toggle = (name: string) => (on: boolean) => {
          const names = on ? [...chosen, name] : chosen.filter((n) => n !== name);
          if (names.length > 0) act({ do: 'parts', axle, kind: field, names });
        };
        const tick = (part: ShelfPart) => (
          <Tick key={part.name} on={chosen.includes(part.name)} onChange={toggle(part.name)}>
            {labelOf(part)}
          </Tick>
        );
        const shelf = choices.shelf.filter((p) => fits(p, kind));
        return (
          <div key={field} role="group" aria-label={`${title}, ${axle}`}>
            <h3>
              {title}, {chosen.length} tried
            </h3>
            <div className="list">
              <Tick on={chosen.includes(OWN)} onChange={toggle(OWN)}>
                as fitted: {fitted?.words}
              </Tick>
              {shelf.length > 0 && <p>on the shelf</p>}
              {shelf.map(tick)}
              <p>common sizes</p>
              {choices.common.filter((p) => fits(p, kind)).map(tick)}
            </div>
          </div>
        );
      })}
      {adding ? (
        <NewPart axle={axle} matching={matching} onDone={() => setAdding(false)} />
      ) : (
        <Button className="more" onPress={() => setAdding(true)}>
          Put a part on the shelf
        </Button>
      )}
    </Box>
  );
}
