/** What the sheets of several stages share: the bar on top, their headings, the cautions below. */
import styled, { css } from 'styled-components';

export const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: var(--s4) var(--s18);
  align-items: center;
  min-height: 40px;
  padding: var(--s4) 0;
  border-bottom: var(--r-hair) solid var(--ink);
  h1 {
    font: var(--w-strong) var(--t-head) / var(--one) var(--letter);
  }
  > p {
    flex: 1;
    min-width: 200px;
  }
`;
/** A heading, and what it says of itself beside it. */
export const headings = css`
  h2 {
    font: var(--w-strong) var(--t-head) / var(--snug) var(--letter);
  }
  h2 em {
    font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
    color: var(--ink-2);
    font-style: normal;
    padding-left: var(--s6);
  }
`;
export const cautions = css`
  footer {
    color: var(--ink-2);
    font-size: var(--t-note);
    border-top: var(--r-hair) solid var(--ink);
    padding-top: var(--s4);
  }
`;
