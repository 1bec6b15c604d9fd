/**
 * A sentence of the server's in the units a person chose. The server writes every figure in a sentence the same way, a number, a space
 * and the unit, and forces and pressures in N, kN, MPa, kPa or psi; formatting only.
 */
import { force, great, pressure, PSI, type Displayed } from './display';

/** A residual valve is called by its psi; a setting begins well above. */
const NAMED_BELOW_PSI = 20;
const WRITE: Record<string, (value: number) => Displayed | null> = {
  N: force,
  kN: (kn) => great(kn * 1000),
  MPa: (mpa) => pressure(mpa * 1000),
  kPa: pressure,
  psi: (psi) => (psi < NAMED_BELOW_PSI ? null : pressure(psi * PSI)),
};
const FIGURE = /(?<![\w.,])(\d[\d,]*(?:\.\d+)?)(?: to (\d[\d,]*(?:\.\d+)?))? (kN|N(?! m)|MPa|kPa|psi)(?![\w/])/g;
const number = (text: string) => Number(text.replaceAll(',', ''));

/** The sentence with its forces and pressures in the chosen units; a figure that is in its unit already stays as it is written. */
export function inChosenUnits(sentence: string): string {
  return sentence.replace(FIGURE, (whole: string, first: string, second: string | undefined, unit: string) => {
    const a = WRITE[unit]?.(number(first)) ?? null;
    if (a === null || a.unit === unit) return whole;
    const b = second === undefined ? null : (WRITE[unit]?.(number(second)) ?? null);
    return b === null ? `${a.v} ${a.unit}` : `${a.v} to ${b.v} ${b.unit}`;
  });
}
