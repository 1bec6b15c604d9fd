/** Rebuilding a cylinder: how far each cup sweeps in this setup, and whether a pit lies in its way. */
import styled from 'styled-components';
import { Field } from '../../ui/Field';
import { Mark } from '../../ui/Mark';
import { capital } from '../../units/format';
import type { Build } from './useBuild';
import { lengthOf, written } from '../../units/display';
import { inChosenUnits } from '../../units/sentences';

const Box = styled.section`
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 132px;
    gap: var(--s4) var(--s12);
    align-items: end;
    border-bottom: var(--r-hair) solid var(--rule);
    padding: var(--s4) 0;
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
  }
  li b {
    display: block;
    font: var(--w-strong) var(--t-name) / var(--snug) var(--letter);
  }
  .sized {
    display: grid;
  }
  .said {
    grid-column: 1 / -1;
    display: flex;
    gap: var(--s6);
  }
  .said svg {
    flex: none;
  }
`;

export function Rebuild({ build }: { build: Build }) {
  const { cups } = build.view;
  if (cups.length === 0) return null;
  const listed = cups.some((c) => c.pit !== '');
  return (
    <Box aria-label="Rebuilding the cylinder">
      <h2>
        Rebuilding the cylinder
        <em>a pit matters where a cup sweeps</em>
      </h2>
      <p className="quiet">
        Measured in the bore, from where the cup’s lip rests, into it. What may be honed or sleeved is the maker’s. Both
        holes of the reservoir clear, the small one too; cups the right way round, wetted with the fluid that goes in;
        the piston comes back by its spring.
      </p>
      <ul>
        {cups.map((cup) => (
          <li key={cup.name}>
            <span>
              <b>{capital(cup.name)}</b>
              {cup.at_stop_mm === null ? '' : `sweeps ${written(lengthOf(cup.at_stop_mm, 1))} at the stop wanted, `}
              {written(lengthOf(cup.most_mm, 1))} at most
            </span>
            <Field
              className="sized"
              saysRefused
              label="a pit lies at"
              name={`${cup.name}: a pit lies at`}
              value={cup.pit}
              placeholder="none"
              onCommit={(text) =>
                build.onEdits(`${cup.name}: ${text.trim() === '' ? 'no pit' : 'a pit'}`, [
                  text.trim() === ''
                    ? { op: 'remove', path: `/build/pits/${cup.name}` }
                    : listed
                      ? { path: `/build/pits/${cup.name}`, value: text.trim() }
                      : { path: '/build/pits', value: { [cup.name]: text.trim() } },
                ])
              }
            />
            {cup.level !== null && (
              <span className="said">
                <Mark state={cup.level} size={16} />
                <span>{inChosenUnits(cup.sentence)}</span>
              </span>
            )}
          </li>
        ))}
      </ul>
    </Box>
  );
}
