/** A field of a small form: its label above, as wide as a figure. */
import { TextField } from 'react-aria-components';
import styled from 'styled-components';

export const PlainField = styled(TextField)`
  .react-aria-Label {
    display: block;
    font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
    color: var(--ink-2);
  }
  input {
    border: 0;
    border-bottom: var(--r-outline) solid var(--ink);
    background: var(--sunk);
    min-height: 27px;
    width: 116px;
    padding: 0 var(--s6);
    font: var(--w-strong) var(--t-figure) / 1 var(--letter);
  }
  input::placeholder {
    color: var(--ink-2);
    font-weight: var(--w-firm);
    opacity: 1;
  }
  input:focus-visible {
    outline: var(--r-heavy) solid var(--plan);
    outline-offset: 0;
    background: var(--paper);
  }
  &[data-invalid] input {
    outline: var(--r-heavy) solid var(--danger);
  }
  @media (pointer: coarse) {
    input {
      min-height: var(--target);
    }
  }
`;
