/** What every instrument stands on: a panel with its title, its note and its tools. */
import type { ReactNode } from 'react';
import { Button } from 'react-aria-components';
import styled from 'styled-components';
import { useOverflow } from '../../ui/useOverflow';

export const Section = styled.section`
  padding: var(--s6) var(--s14) 0;
  overflow-y: auto;
  scrollbar-width: thin;
  border-left: var(--r-hair) solid var(--rule);
  min-width: 0;
  &:first-child {
    border-left: 0;
    padding-left: 0;
  }
  &:last-child {
    padding-right: 0;
  }
  &[data-large] {
    grid-column: 1 / -2;
  }
  h2 {
    font: var(--w-strong) var(--t-head) / var(--tight) var(--letter);
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s6);
    align-items: baseline;
  }
  h2 em {
    font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
    color: var(--ink-2);
  }
  h2 > :last-child:is(button, .tools) {
    margin-left: auto;
    white-space: nowrap;
  }
  > p {
    font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
  }
  .plot {
    margin-top: var(--s4);
  }
  .title .react-aria-Button {
    border: 0;
    min-height: var(--s20);
    font: var(--w-strong) var(--t-head) / var(--tight) var(--letter);
    white-space: nowrap;
  }
`;
export const Tool = styled(Button)`
  @media print {
    display: none;
  }
  border: 0;
  background: none;
  padding: 0 var(--s2);
  font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
  color: var(--ink-2);
  text-decoration: underline;
  text-underline-offset: var(--s2);
  min-height: var(--s24);
  @media (pointer: coarse) {
    min-height: var(--target);
  }
`;

interface PanelProps {
  id: string;
  title: ReactNode;
  name: string;
  note: string;
  tools?: ReactNode;
  large?: boolean;
  children: ReactNode;
}
/** A panel that holds more than fits can be scrolled by keys too. */
export function Panel({ id, title, name, note, tools, large = false, children }: PanelProps) {
  const [ref, scrolls] = useOverflow<HTMLElement>();
  return (
    <Section id={id} ref={ref} aria-label={name} tabIndex={scrolls ? 0 : -1} data-large={large || undefined}>
      <h2>
        {title} <em>{note}</em>
        {tools}
      </h2>
      {children}
    </Section>
  );
}
