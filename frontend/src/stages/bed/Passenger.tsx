/** For the passenger, who holds the recipe: the next slow-down in large figures, the count, the gap running down. */
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { Mark } from '../../ui/Mark';
import { PressButton } from '../../ui/PressButton';
import { useAwake } from '../../ui/useAwake';
import { useFresh } from '../../ui/useFresh';
import { counted } from '../../units/format';
import type { Bed } from './useBed';
import { speedOf, written } from '../../units/display';

const Box = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: var(--s8);
  .now {
    font: var(--w-strong) var(--t-hero) / var(--tight) var(--letter);
    color: var(--plan);
  }
  .count {
    font: var(--w-strong) var(--t-title) / var(--snug) var(--letter);
  }
  .go {
    width: 100%;
    min-height: 64px;
    font-size: var(--t-title);
  }
  .ways {
    display: flex;
    justify-content: space-between;
    gap: var(--s10);
  }
`;
const clock = (s: number) => `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, '0')}`;

/** Seconds since a time, each second. */
function useSince(at: string | null): number | null {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (at === null) return;
    const timer = window.setInterval(() => setNow(Date.now()), 1000);
    return () => window.clearInterval(timer);
  }, [at]);
  return at === null ? null : Math.max(0, (now - new Date(at).getTime()) / 1000);
}

export function Passenger({ bed }: { bed: Bed }) {
  const { slow_downs: every, setup } = bed.view;
  const next = every.find((s) => s.driven === null) ?? null;
  const last = [...every].reverse().find((s) => s.driven !== null) ?? null;
  const since = useSince(last?.driven ?? null);
  const awake = useAwake(last !== null && next !== null);
  const [refused, setRefused] = useState('');
  const [pressed, setPressed] = useState(0);
  const fresh = useFresh(next?.number ?? 0);
  const gap = next !== null && last !== null ? next.starts_at_s - last.starts_at_s : null;
  const left = gap !== null && since !== null ? gap - since : null;
  async function started() {
    if (next === null) return;
    setRefused('');
    setPressed(next.number);
    try {
      await bed.record(`slow-down ${next.number}`, 'bedded', { setup, number: next.number });
    } catch (error) {
      setPressed(0);
      setRefused(error instanceof Error ? error.message : 'It was refused.');
    }
  }
  if (every.length === 0)
    return <p>No recipe yet: type it from the pad maker’s sheet. None is given here: recipes differ.</p>;
  const undo = last !== null && last.key !== null && (
    <PressButton
      data-plain=""
      onPress={() => {
        setPressed(0);
        void bed.record(`slow-down ${last.number} taken back`, 'struck', { of: last.key, why: 'not driven' });
      }}
    >
      take back {last.number}
    </PressButton>
  );
  if (next === null) {
    return (
      <Box>
        <p className="count">
          <Mark state="ready" size={20} /> All {every.length} driven. Now cool: roll, do not hold the pedal down when
          you stand.
        </p>
        <div className="ways">{undo}</div>
      </Box>
    );
  }
  return (
    <Box>
      <p className="count">
        Slow-down {next.number} of {every.length}
      </p>
      <p className="now">
        {speedOf(next.from_kmh).v} to {written(speedOf(next.to_kmh))}
      </p>
      <p>
        {next.decel_g.toFixed(2)} g: {next.decel_g < 0.3 ? 'gently' : next.decel_g < 0.45 ? 'firmly' : 'hard'}, never to
        a stand.
        {left !== null && (left > 0 ? ` In ${clock(left)}.` : ` Due since ${clock(-left)}.`)}
      </p>
      <PressButton
        className="go"
        data-go=""
        isDisabled={fresh || pressed === next.number}
        onPress={() => void started()}
      >
        It started now
      </PressButton>
      <div className="ways">
        {undo}
        <span className="quiet">{counted(every.length - next.number, 'more after it', 'more after it')}</span>
      </div>
      {!awake && last !== null && (
        <p className="quiet">This browser lets the screen sleep here: touch it now and then.</p>
      )}
      {refused !== '' && <p role="alert">{refused}</p>}
    </Box>
  );
}
