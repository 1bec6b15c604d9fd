/**
 * A sentence of the server's in the units a person chose. The server writes every figure in a sentence the same way, a number, a space
 * and the unit, in N, kN, MPa, kPa, psi, mm, cm², m, km/h or °C; where two share a unit, "to", "of" or "and" stands between them. A size that
 * is the name of a part is written with a space that does not break, and stays as it is. Formatting only.
 */
import { areaOf, force, great, heatOf, lengthOf, onRoad, pressure, PSI, speedOf, type Displayed } from './display';

/** A residual valve is called by its psi; a setting begins well above. */
const NAMED_BELOW_PSI = 20;
/** From the figure as it is written, and how many digits it has behind the point. */
const WRITE: Record<string, (value: number, digits: number) => Displayed | null> = {
  N: force,
  kN: (kn) => great(kn * 1000),
  MPa: (mpa) => pressure(mpa * 1000),
  kPa: pressure,
  psi: (psi) => (psi < NAMED_BELOW_PSI ? null : pressure(psi * PSI)),
  mm: lengthOf,
  'cm²': areaOf,
  m: onRoad,
  'km/h': speedOf,
  '°C': heatOf,
};
const FIGURE =
  /(?<![\w.,])([-−]?\d[\d,]*(?:\.\d+)?)(?: (to|of|and) ([-−]?\d[\d,]*(?:\.\d+)?))? (kN|N(?! m)|MPa|kPa|psi|mm|cm²|m|km\/h|°C)(?![\w/²³·])/g;
const number = (text: string) => Number(text.replaceAll(',', '').replace('−', '-'));
const digits = (text: string) => text.split('.')[1]?.length ?? 0;

/** The sentence with its figures in the chosen units; a figure that is in its unit already stays as it is written. */
export function inChosenUnits(sentence: string): string {
  return sentence.replace(
    FIGURE,
    (whole: string, first: string, between: string | undefined, second: string | undefined, unit: string) => {
      const a = WRITE[unit]?.(number(first), digits(first)) ?? null;
      if (a === null || a.unit === unit) return whole;
      const b = second === undefined ? null : (WRITE[unit]?.(number(second), digits(second)) ?? null);
      return b === null ? `${a.v} ${a.unit}` : `${a.v} ${between ?? 'to'} ${b.v} ${b.unit}`;
    },
  );
}
