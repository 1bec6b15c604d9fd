/** The sentences that stand for the drawings, for a screen reader. */
import { decel, megapascals, millimetres, newtons } from '../../units/format';
import type { Size } from './useSize';
import { firstLock } from './words';

export function saidLine({ setup, now, found, solved }: Size): string {
  const pressures = solved.parts.stations.map(
    (s) => `${megapascals(now.stations[s.name]?.outlet ?? 0)} megapascal at the ${s.name}`,
  );
  const was = found ? `; as found ${newtons(found.now.push)} newton for ${decel(found.now.decel)} g` : '';
  return `Force line, ${setup.name}: ${newtons(now.push)} newton at the foot, ${newtons(now.rod)} on the rod, ${pressures.join(', ')}, ${decel(now.decel)} g on the road${was}.`;
}

export function saidBalance({ setup, state, now }: Size): string {
  const share = now.front + now.rear > 0 ? Math.round((100 * now.front) / (now.front + now.rear)) : 0;
  return `Balance, ${setup.name}: ${share} per cent of the braking at the front; ${firstLock(state)}.`;
}

export function saidTravel({ now, solved }: Size): string {
  const room = solved.parts.pedal.available_mm;
  if (now.travel === null) return 'Pedal travel is not known yet.';
  return `Pedal travel ${millimetres(now.travel)}${room === null ? '' : ` of ${millimetres(room)}`} millimetres.`;
}
