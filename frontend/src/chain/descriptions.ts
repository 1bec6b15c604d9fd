/** The sentences that stand for the drawings, for a screen reader. */
import type { PathView, StateView } from '../api/types';
import { force, lengthOf, pressure, spoken } from '../units/display';
import { decel } from '../units/format';
import type { Figures } from './figures';
import type { FoundLine } from './geometry';
import { firstLock } from './words';

export function describeLine(name: string, solved: PathView, now: Figures, found: FoundLine | null): string {
  const pressures = solved.parts.stations.map(
    (s) => `${spoken(pressure(now.stations[s.name]?.outlet ?? 0))} at the ${s.name}`,
  );
  const was = found ? `; as found ${spoken(force(found.now.push))} for ${decel(found.now.decel)} g` : '';
  return `Force line, ${name}: ${spoken(force(now.push))} at the foot, ${force(now.rod).v} on the rod, ${pressures.join(', ')}, ${decel(now.decel)} g on the road${was}.`;
}

export function describeBalance(name: string, state: StateView, now: Figures): string {
  const share = now.front + now.rear > 0 ? Math.round((100 * now.front) / (now.front + now.rear)) : 0;
  return `Balance, ${name}: ${share} per cent of the braking at the front; ${firstLock(state)}.`;
}

export function describeTravel(solved: PathView, now: Figures): string {
  const room = solved.parts.pedal.available_mm;
  if (now.travel === null) return 'Pedal travel is not known yet.';
  return `Pedal travel ${lengthOf(now.travel).v}${room === null ? '' : ` of ${lengthOf(room).v}`} ${spoken({ ...lengthOf(0), v: '' }).trim()}.`;
}
