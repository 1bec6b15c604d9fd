/** The setups worth buying on a phone: one beneath the other. */
import { Button } from 'react-aria-components';
import styled from 'styled-components';
import { decel, percent } from '../../units/format';
import { force, lengthOf, written } from '../../units/display';
import { chances, extraCost, holds, reasonsOf } from './uncertainty';
import type { Matching } from './useMatch';
import { inChosenUnits } from '../../units/sentences';

const List = styled.ol`
  list-style: none;
  padding: 0;
  li {
    border-top: var(--r-hair) solid var(--rule);
    padding: var(--s8) 0;
    display: grid;
    gap: var(--s4);
  }
  li[data-on] {
    background: var(--sunk);
  }
  .top {
    display: flex;
    align-items: center;
    gap: var(--s10);
    border: 0;
    background: none;
    padding: 0;
    min-height: var(--target);
    text-align: left;
    font: var(--w-strong) var(--t-head) / var(--snug) var(--letter);
  }
  .top b {
    flex: none;
    display: grid;
    place-items: center;
    width: var(--s28);
    height: var(--s28);
    border: var(--r-outline) solid currentcolor;
    border-radius: 50%;
  }
  li[data-on] .top b {
    background: var(--plan);
    border-color: var(--plan);
    color: var(--paper);
  }
  p {
    font: var(--w-firm) var(--t-head) / var(--snug) var(--text);
  }
  p.quiet {
    color: var(--ink-2);
  }
  .figures {
    font: var(--w-strong) var(--t-figure) / var(--snug) var(--letter);
  }
  .take {
    justify-self: start;
    border: var(--r-outline) solid var(--plan);
    color: var(--plan);
    background: none;
    min-height: var(--target);
    padding: 0 var(--s16);
    font: var(--w-strong) var(--t-head) / var(--one) var(--letter);
  }
`;

export function Cards({ matching }: { matching: Matching }) {
  const { rows, on, onRow, next, onTake } = matching;
  return (
    <List>
      {rows.map((row, i) => {
        const { push_n: push, travel_mm: travel } = row.doubt ?? {};
        return (
          <li key={i} data-on={i === on || undefined}>
            <Button className="top" onPress={() => onRow(i)}>
              <span className="visually-hidden">Show on the line setup</span>
              <b>{i + 1}</b>
              {Object.entries(row.words)
                .filter(([part, words]) => part !== 'booster' || words !== 'none')
                .map(([part, words]) => (part === 'pin' ? `pin ${words}` : inChosenUnits(words)))
                .join(', ')}
            </Button>
            {row.joint_chance !== null && <p>Holds every limit in {holds(row)} of plausible vehicles.</p>}
            <p className="figures">
              {written(force(row.push_n))}, {written(lengthOf(row.travel_mm))}, {percent(row.grip_use)} of the grip
            </p>
            {push && travel && (
              <p className="quiet">
                P5 to P95: {force(push.p5).v} to {written(force(push.p95))}, {lengthOf(travel.p5).v} to{' '}
                {written(lengthOf(travel.p95))}
              </p>
            )}
            <p className="quiet">
              {decel(row.left_g)} g with a circuit lost; more to pay: {extraCost(row)}
            </p>
            <p>{inChosenUnits(reasonsOf(row))}</p>
            {row.doubt && <p className="quiet">{chances(row)}</p>}
            {row.as_it_stands ? (
              <p>in use</p>
            ) : (
              <Button className="take" aria-label={`Take as ${next}: setup ${i + 1}`} onPress={() => onTake(row)}>
                Take as {next}
              </Button>
            )}
          </li>
        );
      })}
    </List>
  );
}
