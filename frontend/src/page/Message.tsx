/** A sentence about what was refused, with what can be done; the last good result stays on screen. */
import { Button } from 'react-aria-components';
import styled from 'styled-components';
import type { Notice } from '../api/changes';
import { Mark } from '../ui/Mark';

const Strip = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--s8);
  padding: var(--s6) var(--s10);
  border: var(--r-heavy) solid var(--danger);
  background: var(--paper);
  p {
    flex: 1;
    min-width: 200px;
    font: var(--w-firm) var(--t-head) / var(--snug) var(--text);
  }
  button {
    border: var(--r-outline) solid var(--ink);
    background: none;
    padding: 0 var(--s10);
    min-height: var(--s28);
    font: var(--w-strong) var(--t-text) / var(--one) var(--text);
    white-space: nowrap;
  }
  @media (pointer: coarse) {
    button {
      min-height: var(--target);
    }
  }
`;

export const Message = ({ notice, onClose }: { notice: Notice; onClose: () => void }) => (
  <Strip role="alert">
    <Mark state="danger" size={18} />
    <p>{notice.text}</p>
    {notice.mine && (
      <Button
        onPress={() => {
          onClose();
          notice.mine?.();
        }}
      >
        Use mine
      </Button>
    )}
    <Button onPress={onClose}>{notice.mine ? 'Keep the stored one' : 'Close'}</Button>
  </Strip>
);
