/** Figures as a person wants to read them: the unit is chosen once, on this device. Formatting only. */
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
/** A mass, from kg: in pounds where pounds are read. */
export const mass = (kg: number): Displayed =>
  pounds() ? { v: whole((kg * GRAVITY) / LBF), unit: 'lb' } : { v: whole(kg), unit: 'kg' };
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

const MM_PER_INCH = 25.4;
const M_PER_FOOT = 0.3048;
const KM_PER_MILE = 1.609344;
const inches = () => current().shownLength === 'in';
const feet = () => current().shownRoad === 'ft, mph';
const fahrenheit = () => current().shownHeat === '°F';
/** Digits behind the point that an inch has more than a millimetre. */
const FINER = 2;

/** A length of a part or a travel, from mm, with `digits` behind the point in mm. */
export const lengthOf = (mm: number, digits = 0): Displayed =>
  inches() ? { v: (mm / MM_PER_INCH).toFixed(digits + FINER), unit: 'in' } : { v: mm.toFixed(digits), unit: 'mm' };
/** A dimension without needless zeros: 20.64 mm, 11.5 in. */
export const dimension = (mm: number): Displayed =>
  inches()
    ? { v: parseFloat((mm / MM_PER_INCH).toFixed(3)).toString(), unit: 'in' }
    : { v: parseFloat(mm.toFixed(2)).toString(), unit: 'mm' };
/** An area of a piston, from cm², with `digits` behind the point in cm²: a square inch has one more. */
export const areaOf = (cm2: number, digits = 2): Displayed =>
  inches()
    ? { v: (cm2 / (MM_PER_INCH / 10) ** 2).toFixed(digits + 1), unit: 'in²' }
    : { v: cm2.toFixed(digits), unit: 'cm²' };
/** A way on the road, from m. */
export const onRoad = (m: number, digits = 1): Displayed =>
  feet() ? { v: (m / M_PER_FOOT).toFixed(digits), unit: 'ft' } : { v: m.toFixed(digits), unit: 'm' };
/** A long way, from m. */
export const longWay = (m: number): Displayed =>
  feet() ? { v: (m / 1000 / KM_PER_MILE).toFixed(1), unit: 'miles' } : { v: (m / 1000).toFixed(1), unit: 'km' };
/** A speed, from km/h. */
export const speedOf = (kmh: number, digits = 0): Displayed =>
  feet() ? { v: (kmh / KM_PER_MILE).toFixed(digits), unit: 'mph' } : { v: kmh.toFixed(digits), unit: 'km/h' };
/** A temperature, from °C. */
export const heatOf = (c: number): Displayed =>
  fahrenheit() ? { v: whole(c * 1.8 + 32), unit: '°F' } : { v: whole(c), unit: '°C' };

export const written = ({ v, unit }: Displayed) => `${v} ${unit}`;
const WORDS: Record<string, string> = {
  N: 'newton', lbf: 'pound-force', MPa: 'megapascal', bar: 'bar', psi: 'pound per square inch',
  mm: 'millimetres', in: 'inches', m: 'metres', ft: 'feet', 'km/h': 'kilometres an hour', mph: 'miles an hour',
}; // prettier-ignore
/** With the unit's name, for those who hear it. */
export const spoken = ({ v, unit }: Displayed) => `${v} ${WORDS[unit] ?? unit}`;

/** How many of the shown unit of force a newton is, of pressure a kilopascal: for scales and for what is typed. */
export const perNewton = () => (pounds() ? 1 / LBF : 1);
/** Of the unit of great forces. */
export const perNewtonGreat = () => (pounds() ? 1 / LBF : 1e-3);
export const perKilopascal = () => ({ MPa: 1e-3, bar: 1e-2, psi: 1 / PSI })[current().shownPressure] ?? 1e-3;
/** How many of the shown unit a millimetre, a metre, a kilometre an hour is: for scales. */
export const perMillimetre = () => (inches() ? 1 / MM_PER_INCH : 1);
export const perMetre = () => (feet() ? 1 / M_PER_FOOT : 1);
export const perKmh = () => (feet() ? 1 / KM_PER_MILE : 1);
/** The shown temperature of so many °C, for scales. */
export const shownHeat = (c: number) => (fahrenheit() ? c * 1.8 + 32 : c);
