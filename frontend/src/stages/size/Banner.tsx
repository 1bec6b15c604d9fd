/** What is on the line but not stored: a mend that is tried, or something supposed to have failed. */
import { Button } from 'react-aria-components';
import styled from 'styled-components';
import type { Finding } from '../../api/types';
import { counted, decel } from '../../units/format';
import { force, lengthOf, written } from '../../units/display';
import type { Acts, Reading } from './useSize';

const Strip = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s6) var(--s12);
  border: var(--r-heavy) solid var(--plan);
  background: var(--paper);
  padding: var(--s4) var(--s10);
  &[data-failed] {
    border-color: var(--danger);
  }
  p {
    flex: 1;
    min-width: 220px;
    font: var(--w-firm) var(--t-head) / var(--snug) var(--text);
  }
  button {
    border: var(--r-outline) solid var(--ink);
    background: none;
    min-height: var(--s28);
    padding: 0 var(--s12);
    font: var(--w-strong) var(--t-text) / var(--one) var(--text);
  }
  button[data-take] {
    border-color: var(--plan);
    color: var(--plan);
  }
  @media (pointer: coarse) {
    button {
      min-height: var(--target);
    }
  }
`;

type BannerProps = Pick<Reading, 'setup' | 'trying' | 'failure' | 'found' | 'now'> &
  Pick<Acts, 'onTake' | 'onLeave' | 'onFailure'>;
export function Banner({ setup, trying, failure, found, now, onTake, onLeave, onFailure }: BannerProps) {
  if (trying) {
    const was = found ? `${written(force(found.now.push))}, ${written(lengthOf(found.now.travel ?? 0))}` : '';
    return (
      <Strip role="status">
        <p>
          <b>Tried, not stored: {trying.name}.</b> {written(force(now.push))}, {written(lengthOf(now.travel ?? 0))} for{' '}
          {decel(now.decel)} g{was && `; now ${was}`}. {left(setup.findings)}
        </p>
        <Button data-take="" onPress={onTake}>
          Take it
        </Button>
        <Button onPress={onLeave}>Leave it</Button>
      </Strip>
    );
  }
  if (failure) {
    return (
      <Strip role="status" data-failed="">
        <p>
          <b>What if: {failure.words}.</b> {written(force(now.push))} gives {decel(now.gripDecel)} g
          {now.travel === null ? '' : `, ${written(lengthOf(now.travel))} of pedal`}
          {found ? `; sound it gives ${decel(found.now.gripDecel)} g` : ''}.
        </p>
        <Button onPress={() => onFailure(null)}>Nothing has failed</Button>
      </Strip>
    );
  }
  return null;
}

function left(findings: readonly Finding[]): string {
  const countOf = (level: Finding['level']) => findings.filter((f) => f.level === level).length;
  return `It leaves ${counted(countOf('danger'), 'danger', 'dangers')}, ${counted(countOf('caution'), 'caution', 'cautions')}.`;
}
