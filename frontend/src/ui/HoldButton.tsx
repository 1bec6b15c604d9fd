/** A button that is held for a moment, so that nothing is signed by a slip of the thumb; Enter or Space held does the same. */
import { useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import styled from 'styled-components';

const HOLD_MS = 600;
const Own = styled.button`
  position: relative;
  overflow: hidden;
  border: var(--r-press) solid var(--plan);
  background: none;
  color: var(--plan);
  min-height: 56px;
  width: 100%;
  padding: var(--s6) var(--s14);
  text-align: left;
  font: var(--w-strong) var(--t-figure) / var(--snug) var(--letter);
  touch-action: none;
  user-select: none;
  &::before {
    content: '';
    position: absolute;
    inset: 0;
    background: var(--plan-tint);
    transform: scaleX(0);
    transform-origin: left;
  }
  &[data-held]::before {
    transform: scaleX(1);
    transition: transform ${HOLD_MS}ms linear;
  }
  &:disabled {
    opacity: 0.4;
  }
  > span {
    position: relative;
  }
  @media (prefers-reduced-motion: reduce) {
    &[data-held]::before {
      transition: none;
    }
  }
`;

interface HoldButtonProps {
  disabled?: boolean;
  onHeld: () => void;
  children: ReactNode;
}
export function HoldButton({ disabled = false, onHeld, children }: HoldButtonProps) {
  const timer = useRef<number | null>(null);
  const [held, setHeld] = useState(false);
  const stop = () => {
    if (timer.current !== null) window.clearTimeout(timer.current);
    timer.current = null;
    setHeld(false);
  };
  const start = () => {
    if (disabled || timer.current !== null) return;
    setHeld(true);
    timer.current = window.setTimeout(() => {
      stop();
      onHeld();
    }, HOLD_MS);
  };
  const isPress = (event: KeyboardEvent) => event.key === 'Enter' || event.key === ' ';
  return (
    <Own
      type="button"
      disabled={disabled}
      data-held={held || undefined}
      onPointerDown={start}
      onPointerUp={stop}
      onPointerLeave={stop}
      onPointerCancel={stop}
      onContextMenu={(event) => event.preventDefault()}
      onKeyDown={(event) => {
        if (!isPress(event)) return;
        event.preventDefault();
        if (!event.repeat) start();
      }}
      onKeyUp={(event) => {
        if (isPress(event)) stop();
      }}
      onBlur={stop}
    >
      <span>{children}</span>
    </Own>
  );
}
