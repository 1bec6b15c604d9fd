/** The fields of the push on a laptop's sheet, with the push in the other unit between them. */
import { memo } from 'react';
import styled from 'styled-components';
import { onAScale, otherForce, written } from '../../units/display';
import { PushFields, type PushFieldsProps } from './PushFields';

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
  .react-aria-TextField {
    position: relative;
  }
  [data-invalid] .line {
    border-color: var(--danger);
  }
  .other {
    align-self: end;
    font: var(--w-firm) var(--t-name) / var(--snug) var(--letter);
    color: var(--ink-2);
    white-space: nowrap;
  }
`;

export const PushEntry = memo(function PushEntry(props: PushFieldsProps) {
  return (
    <Entry>
      <PushFields
        {...props}
        between={
          <span className="other" title={`${onAScale(props.push)} on a bathroom scale`}>
            {written(otherForce(props.push))}
            <br />
            {onAScale(props.push)} on a scale
          </span>
        }
      />
    </Entry>
  );
});
