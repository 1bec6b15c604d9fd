/** What a person looks at in Size: which setup, path and load state, the push, and what is supposed to have failed. Pure. */
import type { Asked } from '../../api/jobs';

export interface Looking {
  setup: string;
  /** Control path by name; null is the one of all controls. */
  path: string | null;
  load: number;
  asked: Asked;
  match: 'stop' | 'push';
  failure: string | null;
}
export type Look =
  | { type: 'setup'; setup: string }
  | { type: 'path'; path: string | null; decel: number }
  | { type: 'load'; load: number; decel: number }
  | { type: 'push'; value: number }
  | { type: 'decel'; value: number }
  | { type: 'match'; match: Looking['match'] }
  | { type: 'failure'; failure: string | null };

export function looking(state: Looking, look: Look): Looking {
  switch (look.type) {
    case 'setup':
      return { ...state, setup: look.setup, failure: null };
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
  }
}
