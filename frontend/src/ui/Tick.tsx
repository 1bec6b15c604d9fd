/** A box to tick, with its words. */
import type { ReactNode } from 'react';
import { Checkbox } from 'react-aria-components';
import styled from 'styled-components';

const Own = styled(Checkbox)`
  display: flex;
  align-items: center;
  gap: var(--s8);
  min-height: var(--s24);
  cursor: pointer;
  font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
  > svg {
    flex: none;
  }
  &[data-focus-visible] {
    outline: var(--r-heavy) solid var(--ink);
    outline-offset: var(--s2);
  }
  @media (pointer: coarse) {
    min-height: var(--target);
  }
`;
interface TickProps {
  on: boolean;
  onChange: (on: boolean) => void;
  label?: string;
  children?: ReactNode;
}
export const Tick = ({ on, onChange, label, children }: TickProps) => (
  <Own isSelected={on} onChange={onChange} aria-label={label}>
    <svg width="15" height="15" aria-hidden="true">
      <rect x="1" y="1" width="13" height="13" className={on ? 'edge solid' : 'edge'} />
      {on && <path d="M4,7.6L6.6,10.4L11,4.6" className="mark-sign" />}
    </svg>
    {children}
  </Own>
);
