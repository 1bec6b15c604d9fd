/** The push and the stop wanted, as fields: type either, the other follows. */
import { memo } from 'react';
import { NumberField, Input, Label } from 'react-aria-components';
import styled from 'styled-components';
import { force, otherForce, perNewton, written } from '../../units/shown';

const Entry = styled.div`
  padding: var(--s4) var(--s10) 0 var(--s14);
  display: grid;
  grid-template-columns: 78px auto 86px;
  column-gap: var(--s10);
  align-content: start;
  border-right: var(--r-hair) solid var(--rule);
  .react-aria-Label {
    display: block;
    font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
    color: var(--ink-2);
    white-space: nowrap;
  }
  .line {
    display: flex;
    align-items: baseline;
    border-bottom: var(--r-outline) solid var(--ink);
    color: var(--plan);
    font: var(--w-firm) var(--t-text) / var(--one) var(--letter);
  }
  .react-aria-Input {
    font: var(--w-strong) var(--t-entry) / var(--tight) var(--letter);
    color: var(--plan);
    border: 0;
    padding: 0;
    background: none;
    width: 100%;
    min-width: 0;
  }
  .react-aria-Input[data-focused] {
    outline: var(--r-heavy) solid var(--plan);
    outline-offset: var(--s2);
  }
  .other {
    align-self: end;
    font: var(--w-firm) var(--t-name) / var(--snug) var(--letter);
    color: var(--ink-2);
    white-space: nowrap;
  }
`;

interface PushEntryProps {
  push: number;
  decel: number;
  onPush: (n: number) => void;
  onDecel: (g: number) => void;
}
const PUSH = { maximumFractionDigits: 0, useGrouping: false };
const DECEL = { minimumFractionDigits: 2, maximumFractionDigits: 2 };

export const PushEntry = memo(function PushEntry({ push, decel, onPush, onDecel }: PushEntryProps) {
  return (
    <Entry>
      <NumberField
        value={Math.round(push * perNewton())}
        minValue={0}
        maxValue={5000 * perNewton()}
        step={1}
        formatOptions={PUSH}
        onChange={(typed) => onPush(typed / perNewton())}
      >
        <Label>Push</Label>
        <span className="line">
          <Input />
          {force(push).unit}
        </span>
      </NumberField>
      <span className="other">{written(otherForce(push))}</span>
      <NumberField
        value={Math.round(decel * 100) / 100}
        minValue={0}
        maxValue={3}
        step={0.01}
        formatOptions={DECEL}
        onChange={onDecel}
      >
        <Label>Stop wanted</Label>
        <span className="line">
          <Input />g
        </span>
      </NumberField>
    </Entry>
  );
});
