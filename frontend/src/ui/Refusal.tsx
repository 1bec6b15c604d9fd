/** Why something typed was not taken, under its field and over what stands there. */
import styled from 'styled-components';

const Panel = styled.p`
  position: absolute;
  z-index: 5;
  top: 100%;
  left: 0;
  width: 270px;
  padding: var(--s6) var(--s8);
  border: var(--r-heavy) solid var(--danger);
  background: var(--paper);
  font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
`;

export const Refusal = ({ children }: { children: string | null }) =>
  children && <Panel role="alert">{children}</Panel>;
