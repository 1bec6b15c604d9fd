/** Forces and pressures as a person wants to read them: the unit is chosen once, on this device. Formatting only. */
import { current } from './preference';

const GRAVITY = 9.80665;
const LBF = 4.4482216152605;
export const PSI = 6.894757293168;
const LBF_FT = 1.3558179483314;

export interface Displayed {
  v: string;
  unit: string;
}
const whole = (n: number) => Math.round(n).toString();
/** Three figures of thousands. */
const thousands = (n: number) => (n / 1000 >= 9.995 ? (n / 1000).toFixed(1) : (n / 1000).toFixed(2));
const pounds = () => current().shownForce === 'lbf';

/** A force at the foot or the rod, from N. */
export const force = (n: number): Displayed =>
  pounds() ? { v: whole(n / LBF), unit: 'lbf' } : { v: whole(n), unit: 'N' };
/** The same in the unit that was not chosen. */
export const otherForce = (n: number): Displayed =>
  pounds() ? { v: whole(n), unit: 'N' } : { v: whole(n / LBF), unit: 'lbf' };
/** A push as a bathroom scale shows it: in pounds where pounds are read, else in kilograms. */
export const onAScale = (n: number): string => (pounds() ? `${whole(n / LBF)} lb` : `${whole(n / GRAVITY)} kg`);
/** A force at a brake or a tyre, from N. */
export const great = (n: number): Displayed =>
  pounds() ? { v: whole(n / LBF), unit: 'lbf' } : { v: thousands(n), unit: 'kN' };
export const torque = (nm: number): Displayed =>
  pounds() ? { v: whole(nm / LBF_FT), unit: 'lbf ft' } : { v: whole(nm), unit: 'N m' };

const PRESSURES: Record<string, (kpa: number) => string> = {
  MPa: (kpa) => (kpa / 1000).toFixed(2),
  bar: (kpa) => (kpa / 100).toFixed(1),
  psi: (kpa) => whole(kpa / PSI),
};
const pressureIn = (unit: string, kpa: number): Displayed => ({ v: PRESSURES[unit]?.(kpa) ?? '', unit });
/** A pressure, from kPa. */
export const pressure = (kpa: number): Displayed => pressureIn(current().shownPressure, kpa);
/** The same in another unit: psi, and MPa for those who read psi. */
export const otherPressure = (kpa: number): Displayed =>
  pressureIn(current().shownPressure === 'psi' ? 'MPa' : 'psi', kpa);

export const written = ({ v, unit }: Displayed) => `${v} ${unit}`;
const WORDS: Record<string, string> = {
  N: 'newton', lbf: 'pound-force', MPa: 'megapascal', bar: 'bar', psi: 'pound per square inch',
}; // prettier-ignore
/** With the unit's name, for those who hear it. */
export const spoken = ({ v, unit }: Displayed) => `${v} ${WORDS[unit] ?? unit}`;

/** How many of the shown unit of force a newton is, of pressure a kilopascal: for scales and for what is typed. */
export const perNewton = () => (pounds() ? 1 / LBF : 1);
/** Of the unit of great forces. */
export const perNewtonGreat = () => (pounds() ? 1 / LBF : 1e-3);
export const perKilopascal = () => ({ MPa: 1e-3, bar: 1e-2, psi: 1 / PSI })[current().shownPressure] ?? 1e-3;
