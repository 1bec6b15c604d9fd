/** What a person looks at in Size: setup, path and load state, the push, what failed or is tried, and what lies beneath the line. Pure. */
import type { Asked } from '../../api/size';
import type { SetupView, Step } from '../../api/types';
import type { Match } from '../../chain/gains';

/** A mend that is looked at before it is taken: the setup as it would be, and how it would stand in the document. */
export interface Trying {
  name: string;
  step: Step;
  setup: SetupView;
  document: unknown;
}
/** What lies beneath the line: the instruments, the setups side by side, or the working of a link. */
export type Beneath = 'instruments' | 'comparison' | { link: number };
/** The link whose working is the travel's: one of its own, after the places in the drawing. */
export const TRAVEL_LINK = 9;
export interface Looking {
  setup: string;
  /** Control path by name; null is the one of all controls. */
  path: string | null;
  load: number;
  asked: Asked;
  match: Match;
  failure: string | null;
  trying: Trying | null;
  beneath: Beneath;
}
export type Look =
  | { type: 'setup'; setup: string }
  | { type: 'path'; path: string | null; decel: number }
  | { type: 'load'; load: number; decel: number }
  | { type: 'push'; value: number }
  | { type: 'decel'; value: number }
  | { type: 'match'; match: Match }
  | { type: 'failure'; failure: string | null }
  | { type: 'try'; trying: Trying }
  | { type: 'leave' }
  | { type: 'beneath'; beneath: Beneath };

export const FIRST_STOP_G = 0.5;
/** The first look: a plan where there is one, at the stop that setups are compared at. */
export const firstLook = (setup: string, wanted: number | null): Looking => ({
  setup,
  path: null,
  load: 0,
  asked: { by: 'decel', value: wanted ?? FIRST_STOP_G },
  match: 'stop',
  failure: null,
  trying: null,
  beneath: 'instruments',
});

export function looking(state: Looking, look: Look): Looking {
  switch (look.type) {
    case 'setup':
      return { ...state, setup: look.setup, failure: null, trying: null };
    case 'path':
      return { ...state, path: look.path, failure: null, asked: { by: 'decel', value: look.decel } };
    case 'load':
      return { ...state, load: look.load, asked: { by: 'decel', value: look.decel } };
    case 'push':
      return { ...state, asked: { by: 'push', value: Math.max(0, look.value) } };
    case 'decel':
      return { ...state, asked: { by: 'decel', value: Math.max(0, look.value) } };
    case 'match':
      return { ...state, match: look.match };
    case 'failure':
      return { ...state, failure: look.failure };
    case 'try':
      // Looked at meanwhile, another setup is not the one that was tried.
      return look.trying.setup.key === state.setup ? { ...state, failure: null, trying: look.trying } : state;
    case 'leave':
      return { ...state, trying: null };
    case 'beneath':
      return { ...state, beneath: look.beneath };
  }
}
