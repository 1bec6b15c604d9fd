/** The instruments of Size: balance, where the pedal goes, findings; the same ones on a sheet and on a phone. */
import { memo, useMemo, type ReactNode } from 'react';
import styled from 'styled-components';
import { Balance } from '../../charts/Balance';
import { TravelStair } from '../../charts/TravelStair';
import { useOverflow } from '../../ui/useOverflow';
import { useWidth } from '../../ui/useWidth';
import { decel, millimetres, percent } from '../../units/format';
import { Findings, tally, type FindingsProps } from './Findings';
import { causesOf, lostOf, pathsOf, roomLeft } from './instruments';
import { saidBalance, saidTravel } from './said';
import type { Size } from './useSize';

const Section = styled.section`
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
  h2 {
    font: var(--w-strong) var(--t-head) / var(--tight) var(--letter);
    display: flex;
    flex-wrap: wrap;
    gap: 0 var(--s8);
    align-items: baseline;
  }
  h2 em {
    font: var(--w-firm) var(--t-text) / var(--tight) var(--text);
    color: var(--ink-2);
  }
  > p {
    font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
  }
  .plot {
    margin-top: var(--s4);
  }
`;

/** A panel that holds more than fits can be scrolled by keys too. */
function Panel({ id, title, note, children }: { id: string; title: string; note: string; children: ReactNode }) {
  const [ref, scrolls] = useOverflow<HTMLElement>();
  return (
    <Section id={id} ref={ref} aria-labelledby={`${id}-title`} tabIndex={scrolls ? 0 : -1}>
      <h2 id={`${id}-title`}>
        {title} <em>{note}</em>
      </h2>
      {children}
    </Section>
  );
}

export const BalancePanel = memo(function BalancePanel({ size }: { size: Size }) {
  const [ref, width] = useWidth<HTMLDivElement>(330);
  const { job, now, state, look, setup } = size;
  const paths = useMemo(() => pathsOf(job.view, setup.key, look.load), [job.view, setup.key, look.load]);
  const total = now.front + now.rear;
  const ideal = now.idealShare === null ? '' : `, ideal ${percent(now.idealShare)}`;
  return (
    <Panel id="balance" title="Balance" note="rear against front, kN">
      <p>
        {total > 0
          ? `Front share ${percent(now.front / total)}${ideal} at ${decel(now.decel)} g.`
          : 'Nothing brakes at this push.'}
      </p>
      <div className="plot" ref={ref}>
        <Balance
          width={width}
          height={226}
          tyres={state.balance}
          paths={paths}
          at={{ front: now.front, rear: now.rear, name: setup.name.replace(/^plan /, '') }}
          said={saidBalance(size)}
        />
      </div>
    </Panel>
  );
});

export const TravelPanel = memo(function TravelPanel({ size }: { size: Size }) {
  const [ref, width] = useWidth<HTMLDivElement>(350);
  const { now, solved, state, found, job, setup } = size;
  const room = solved.parts.pedal.available_mm;
  const whole = solved.parts.cylinder.stroke_mm;
  if (now.travel === null) {
    return (
      <Panel id="travel" title="Where the pedal goes" note="mm at the pad">
        <p>It still needs: {(setup.needs['travel'] ?? []).join(', ')}.</p>
      </Panel>
    );
  }
  return (
    <Panel id="travel" title="Where the pedal goes" note="mm at the pad">
      <p>
        {room === null
          ? `${millimetres(now.travel)} mm.`
          : `${millimetres(now.travel)} of ${millimetres(room)} mm (${percent(now.travel / room)}), ${roomLeft(room, now.travel)}.`}
      </p>
      <div className="plot" ref={ref}>
        <TravelStair
          width={width}
          causes={causesOf(now)}
          total={now.travel}
          available={room}
          band={job.view.travel}
          found={found?.now.travel ?? null}
          lost={lostOf(state.failures)}
          stroke={whole !== null && now.piston !== null ? { used: now.piston, whole } : null}
          said={saidTravel(size)}
        />
      </div>
    </Panel>
  );
});

/** The findings do not move with the push. */
export const FindingsPanel = memo(function FindingsPanel({ findings, onMend }: FindingsProps) {
  return (
    <Panel id="findings" title="Findings" note={tally(findings)}>
      <Findings findings={findings} onMend={onMend} />
    </Panel>
  );
});
