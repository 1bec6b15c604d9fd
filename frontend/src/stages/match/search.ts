/** What a search is asked, as a reducer; and what stands in it, in a few words. */
import type { MatchChoices, Search } from '../../api/types';
import { dimension, written } from '../../units/display';

export const OWN = 'own';
export const GROUPS = ['pins', 'bores', 'front', 'rear', 'valve', 'bar', 'booster'] as const;
export type Group = (typeof GROUPS)[number];
export type Axle = 'front' | 'rear';

export type Action =
  | { do: 'take'; search: Search }
  | { do: 'tick'; group: Group; choices: MatchChoices }
  | { do: 'set'; group: 'pins' | 'bores' | 'valve' | 'bar'; change: Record<string, unknown> }
  | { do: 'parts'; axle: Axle; kind: 'calipers' | 'rotors' | 'pads'; names: string[] }
  | { do: 'limits' | 'wanted'; change: Record<string, unknown> };

const rounded = (n: number) => `${Math.round(n)} mm`;

/** What a group begins with when it is ticked. */
function beginningOf(group: Group, choices: MatchChoices): Partial<Search> {
  switch (group) {
    case 'pins': {
      const own = choices.pin_mm ?? 60;
      return { pins: { least_mm: rounded(0.75 * own), most_mm: rounded(1.25 * own), step_mm: '1 mm' } };
    }
    case 'bores':
      return { bores: choices.ask.bores ?? { sizes_mm: choices.standard_bores } };
    case 'front':
    case 'rear': {
      const fits = choices.shelf.filter((p) => p.axle === null || p.axle === undefined || p.axle === group);
      const names = (kind: string) => [OWN, ...fits.filter((p) => p.kind === kind).map((p) => p.name)];
      return { [group]: { calipers: names('caliper'), rotors: names('rotor'), pads: names('pad') } };
    }
    case 'valve':
      return { valve: { least_kpa: '1.4 MPa', most_kpa: '4.8 MPa', step_kpa: '0.2 MPa', without: true } };
    case 'bar':
      return { bar: { least_share: 0.4, most_share: 0.7, step_share: 0.02 } };
    case 'booster':
      return { booster_gone: true };
  }
}

/** Without what has no value: the server then has its default. */
const withValues = (entries: Record<string, unknown>) =>
  Object.fromEntries(Object.entries(entries).filter(([, value]) => value !== null && value !== undefined));

export const ticked = (search: Search, group: Group): boolean =>
  group === 'booster' ? search.booster_gone : search[group] !== null && search[group] !== undefined;

export function searching(search: Search, action: Action): Search {
  switch (action.do) {
    case 'take':
      return action.search;
    case 'tick': {
      const { group } = action;
      if (!ticked(search, group)) return { ...search, ...beginningOf(group, action.choices) };
      if (group === 'booster') return { ...search, booster_gone: false };
      return Object.fromEntries(Object.entries(search).filter(([name]) => name !== group)) as Search;
    }
    case 'set':
      return { ...search, [action.group]: withValues({ ...search[action.group], ...action.change }) };
    case 'parts': {
      const own = search[action.axle] ?? { calipers: [OWN], rotors: [OWN], pads: [OWN] };
      return { ...search, [action.axle]: { ...own, [action.kind]: action.names } };
    }
    case 'limits':
    case 'wanted':
      return { ...search, [action.do]: withValues({ ...search[action.do], ...action.change }) };
  }
}

export const typedOr = (typed: string | number | null | undefined, unit = ''): string =>
  typed === null || typed === undefined ? '' : typeof typed === 'number' ? `${typed}${unit ? ` ${unit}` : ''}` : typed;

const counted = (n: number, what: string) => `${n} ${what}${n === 1 ? '' : 's'}`;

/** A group in few words: what it is over. */
export function summary(search: Search, group: Group): string {
  switch (group) {
    case 'pins':
      return search.pins
        ? `${typedOr(search.pins.least_mm)} to ${typedOr(search.pins.most_mm)}, by ${typedOr(search.pins.step_mm)}`
        : '';
    case 'bores':
      return search.bores ? counted(search.bores.sizes_mm.length, 'bore') : '';
    case 'front':
    case 'rear': {
      const own = search[group];
      if (!own) return '';
      return [
        counted(own.calipers?.length ?? 1, 'caliper'),
        counted(own.rotors?.length ?? 1, 'rotor'),
        counted(own.pads?.length ?? 1, 'pad'),
      ].join(' × ');
    }
    case 'valve':
      return search.valve
        ? `${search.valve.without ? 'none, or ' : ''}knee ${typedOr(search.valve.least_kpa)} to ${typedOr(search.valve.most_kpa)}`
        : '';
    case 'bar':
      return search.bar ? `${typedOr(search.bar.least_share)} to ${typedOr(search.bar.most_share)} front` : '';
    case 'booster':
      return 'with it and without';
  }
}

/** What stays in a group that is not ticked. */
export function asItStays(choices: MatchChoices, group: Group): string {
  switch (group) {
    case 'pins':
      return choices.pin_mm === null ? 'not known' : written(dimension(choices.pin_mm));
    case 'bores':
      return choices.bore;
    case 'front':
    case 'rear':
      return choices.own
        .filter((o) => o.axle === group)
        .map((o) => o.words)
        .join(', ');
    case 'valve':
      return choices.valve ? 'as set' : 'none';
    case 'bar':
      return 'as set';
    case 'booster':
      return choices.booster ?? 'none';
  }
}
export const NAMES: Record<Group, string> = {
  pins: 'Pin',
  bores: 'Cylinder',
  front: 'Front brakes',
  rear: 'Rear brakes',
  valve: 'Rear valve',
  bar: 'Balance bar',
  booster: 'Booster',
};
/** The axles that what is searched brakes. */
export const axlesOf = (choices: MatchChoices): string[] => [...new Set(choices.own.map((o) => o.axle))];
/** The groups that this setup has at all. */
export function groupsOf(choices: MatchChoices): Group[] {
  const axles = axlesOf(choices);
  const has: Partial<Record<Group, boolean>> = {
    bar: choices.twin,
    pins: !choices.linkage,
    booster: choices.booster !== null,
    front: axles.includes('front'),
    rear: axles.includes('rear'),
    valve: axles.length > 1,
  };
  return GROUPS.filter((g) => has[g] ?? true);
}
