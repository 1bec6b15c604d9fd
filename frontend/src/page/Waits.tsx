/** What is not stored yet, on every page: how many changes wait and for what, and what was refused since. */
import { Button } from 'react-aria-components';
import styled from 'styled-components';
import { Mark } from '../ui/Mark';

const Strip = styled.div`
  max-width: var(--sheet-most);
  margin: 0 auto;
  padding: var(--s6) var(--s16);
  display: grid;
  gap: var(--s4);
  background: var(--paper);
  border-bottom: var(--r-heavy) solid var(--caution);
  > div {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: var(--s4) var(--s10);
  }
  p {
    flex: 1 1 240px;
    font: var(--w-firm) var(--t-text) / var(--snug) var(--text);
  }
  button {
    border: var(--r-outline) solid var(--ink);
    background: none;
    padding: 0 var(--s10);
    min-height: var(--s28);
    font: var(--w-strong) var(--t-text) / var(--one) var(--text);
  }
  @media (pointer: coarse) {
    button {
      min-height: var(--target);
    }
  }
`;

export interface WaitsProps {
  /** Whether the server answers. */
  there: boolean;
  waiting: readonly { id: string; label: string; refused: string | null }[];
  onSend: () => void;
  onDrop: (id: string) => void;
}
export function Waits({ there, waiting, onSend, onDrop }: WaitsProps) {
  const open = waiting.filter((w) => w.refused === null);
  const refused = waiting.filter((w) => w.refused !== null);
  if (there && waiting.length === 0) return null;
  return (
    <Strip role="status" className="noprint" aria-label="Not stored yet">
      {(open.length > 0 || !there) && (
        <div>
          <Mark state="caution" />
          <p>
            {open.length === 0
              ? 'Kobrix on this machine does not answer. What you see is the last good result; start it again with ./run demo or ./run start.'
              : `${open.length === 1 ? '1 change waits' : `${open.length} changes wait`}: ${open.map((w) => w.label).join(', ')}. Not stored yet; kept on this device and sent as soon as Kobrix answers.`}
          </p>
          {open.length > 0 && <Button onPress={onSend}>Try now</Button>}
        </div>
      )}
      {refused.map((w) => (
        <div key={w.id}>
          <Mark state="danger" />
          <p>
            Not stored: {w.label}. {w.refused}
          </p>
          <Button onPress={() => onDrop(w.id)} aria-label={`Drop: ${w.label}`}>
            Drop it
          </Button>
        </div>
      ))}
    </Strip>
  );
}
