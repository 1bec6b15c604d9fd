/** A button with an outline, and the one that is meant to be pressed next. */
import { Button } from 'react-aria-components';
import styled from 'styled-components';

export const PressButton = styled(Button)`
  border: var(--r-outline) solid var(--ink);
  background: none;
  min-height: var(--s28);
  padding: 0 var(--s10);
  font: var(--w-strong) var(--t-text) / var(--tight) var(--letter);
  color: inherit;
  text-align: left;
  &[data-first] {
    border-color: var(--plan);
    color: var(--plan);
  }
  &[data-go] {
    border-color: var(--plan);
    background: var(--plan);
    color: var(--on-state);
    text-align: center;
  }
  &[data-disabled] {
    opacity: 0.4;
  }
  &[data-plain] {
    border: 0;
    padding: 0;
    min-height: var(--s24);
    text-decoration: underline;
    text-underline-offset: var(--s3);
    font-weight: var(--w-firm);
  }
  /* On paper only what tells something stays. */
  @media print {
    &:not([data-told]) {
      display: none;
    }
    && {
      border: 0;
      padding: 0;
      min-height: 0;
      text-decoration: none;
    }
  }
  @media (pointer: coarse) {
    &,
    &[data-plain] {
      min-height: var(--target);
      min-width: var(--target);
    }
  }
`;
