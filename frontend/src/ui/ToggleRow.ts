/** Buttons in a row of which one, or some, are chosen: the chosen ones are inked over. */
import { ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';

export const ToggleRow = styled(ToggleButtonGroup)`
  display: flex;
  flex-wrap: wrap;
  button {
    border: var(--r-hair) solid var(--ink);
    margin: 0 -1px -1px 0;
    background: var(--paper);
    min-height: var(--s24);
    padding: 0 var(--s6);
    font: var(--w-firm) var(--t-text) / var(--one) var(--letter);
  }
  button[data-selected] {
    background: var(--ink);
    color: var(--paper);
  }
  &[data-apart] {
    gap: var(--s4);
  }
  @media (pointer: coarse) {
    button {
      min-height: var(--target);
      padding: 0 var(--s12);
    }
  }
`;
