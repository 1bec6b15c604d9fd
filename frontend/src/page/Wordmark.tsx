/** The name with its sign: one push that shares out in two and joins again. */
import styled from 'styled-components';

const Word = styled.span`
  font: var(--w-most) var(--t-entry) / var(--one) var(--letter);
  letter-spacing: var(--track);
  display: flex;
  align-items: center;
  gap: var(--s8);
`;

export const Wordmark = () => (
  <Word>
    <svg width="36" height="18" viewBox="0 0 36 18" aria-hidden="true">
      <path d="M0,9L6,9C11,9 11,4 16,4C22,4 22,9 27,9" className="plan-line sign" />
      <path d="M6,9C11,9 11,14 16,14C22,14 22,9 27,9" className="plan-line" />
      <path d="M36,9L25,4L25,14Z" className="plan-area" />
    </svg>
    Kobrix
  </Word>
);
