/** What a person looks at in Size: which setup, which load state, and the push. Pure, so that it can be tested and replayed. */
import type { Asked } from '../../api/jobs';

export interface Looking {
  setup: string;
  load: number;
  asked: Asked;
  match: 'stop' | 'push';
}
export type Look =
  | { type: 'setup'; setup: string }
  | { type: 'load'; load: number; decel: number }
  | { type: 'push'; value: number }
  | { type: 'decel'; value: number }
  | { type: 'match'; match: Looking['match'] };

export function looking(state: Looking, look: Look): Looking {
  switch (look.type) {
    case 'setup':
      return { ...state, setup: look.setup };
    case 'load':
      return { ...state, load: look.load, asked: { by: 'decel', value: look.decel } };
    case 'push':
      return { ...state, asked: { by: 'push', value: Math.max(0, look.value) } };
    case 'decel':
      return { ...state, asked: { by: 'decel', value: Math.max(0, look.value) } };
    case 'match':
      return { ...state, match: look.match };
  }
}
