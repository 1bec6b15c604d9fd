/** As found and the plans: which one is on the line, how each stands. */
import { memo, useEffect, useRef, useState, type PointerEvent } from 'react';
import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import { capital } from '../units/format';
import type { Headline, SetupView } from '../api/types';
import { force, written } from '../units/display';
import { Mark } from '../ui/Mark';
import { LOW } from '../ui/useMedia';

const Group = styled(ToggleButtonGroup)`
  display: flex;
  position: relative;
  min-width: 0;
  overflow-x: auto;
  scrollbar-width: none;
  .tab {
    flex: 1 0 auto;
    min-width: var(--col-plan);
    border: 0;
    border-right: var(--r-hair) solid var(--rule);
    background: none;
    text-align: left;
    padding: var(--s6) var(--s10) 0;
    position: relative;
  }
  .tab:first-child {
    padding-left: var(--s2);
  }
  b {
    font: var(--w-strong) var(--t-name) / var(--snug) var(--letter);
    display: flex;
    align-items: center;
    gap: var(--s8);
    white-space: nowrap;
  }
  b::first-letter {
    text-transform: uppercase;
  }
  .tab > span {
    font: var(--w-firm) var(--t-text) / var(--read) var(--text);
    color: var(--ink-2);
    display: flex;
    gap: var(--s4);
    align-items: center;
    white-space: nowrap;
  }
  .tab[data-selected] b {
    color: var(--plan);
  }
  .tab[data-selected]::after {
    content: '';
    position: absolute;
    left: var(--s10);
    right: var(--s10);
    bottom: 0;
    height: var(--r-press);
    background: var(--plan);
  }
  @media ${LOW} {
    .tab {
      display: flex;
      align-items: center;
      gap: var(--s8);
      padding-top: 0;
      flex: 0 0 auto;
    }
    b svg {
      display: none;
    }
    &[data-many] .tab:not([data-selected]) {
      flex-direction: column;
      justify-content: center;
      gap: 0;
    }
  }
  /* Many plans: each is its letter and its mark; the one on the line has its name. */
  &[data-many] .tab {
    min-width: 0;
    flex: 0 0 auto;
    gap: var(--s3);
    padding-left: var(--s5);
    padding-right: var(--s5);
  }
  &[data-many] .tab:not([data-selected]) i {
    display: none;
  }
  i {
    font-style: normal;
  }
  .tab[data-dragged] {
    opacity: 0.5;
  }
  .tab[data-here]::before {
    content: '';
    position: absolute;
    top: 0;
    bottom: 0;
    width: var(--r-press);
    background: var(--plan);
  }
  .tab[data-here='before']::before {
    left: 0;
  }
  .tab[data-here='after']::before {
    right: 0;
  }
  .tab[data-focus-visible] {
    outline-offset: calc(0px - var(--s3));
  }
`;

/** How a setup stands, in a word or two. */
export function headline({ kind, push_n: push }: Headline): string {
  switch (kind) {
    case 'incomplete':
      return 'incomplete';
    case 'rear_first':
      return 'rear first';
    case 'rear_lifts':
      return 'lifts';
    case 'no_such_stop':
      return 'no such stop';
    case 'push':
      return written(force(push ?? 0));
  }
}
const FEW = 5; // setups that have room for their names
/** A plan's letter or the first letters of its name. */
const short = (name: string, i: number) => (i === 0 ? 'Found' : (name.split(' ').at(-1) ?? name).slice(0, 3));
interface PlanTabsProps {
  setups: readonly SetupView[];
  using: string;
  onUse: (key: string) => void;
  /** A plan drawn by a mouse to the place `at` among the plans; its menu moves it by keys and by touch. */
  onMove?: (name: string, at: number) => void;
  small?: boolean;
}

const DRAWN = 8; // px a pointer goes before it draws the tab along
interface Drag {
  from: number;
  x: number;
  /** The tab over which it is let go; null until it is drawn. */
  to: number | null;
}
/** A tab drawn along the row by a mouse: which one, and over which it is. The first, as found, stays. */
function useDrag(setups: readonly SetupView[], onMove: PlanTabsProps['onMove']) {
  const [drag, setDrag] = useState<Drag | null>(null);
  const at = (event: PointerEvent<HTMLDivElement>) =>
    [...event.currentTarget.querySelectorAll('.tab')].findIndex((tab) => {
      const { left, right } = tab.getBoundingClientRect();
      return event.clientX >= left && event.clientX < right;
    });
  return {
    drag,
    handlers: {
      onPointerDownCapture: (event: PointerEvent<HTMLDivElement>) => {
        const from = at(event);
        if (event.pointerType === 'mouse' && event.button === 0 && from > 0 && onMove)
          setDrag({ from, x: event.clientX, to: null });
      },
      onPointerMoveCapture: (event: PointerEvent<HTMLDivElement>) => {
        if (drag === null || (drag.to === null && Math.abs(event.clientX - drag.x) < DRAWN)) return;
        const to = Math.max(1, at(event));
        if (to !== drag.to) setDrag({ ...drag, to });
      },
      onPointerUpCapture: () => {
        const name = drag && setups[drag.from]?.name;
        if (name && drag.to !== null && drag.to !== drag.from) onMove?.(name, drag.to - 1);
        setDrag(null);
      },
      onPointerLeave: () => setDrag(null),
    },
  };
}

export const PlanTabs = memo(function PlanTabs({ setups, using, onUse, onMove, small = false }: PlanTabsProps) {
  const { drag, handlers } = useDrag(setups, onMove);
  const many = setups.length > FEW;
  const group = useRef<HTMLDivElement>(null);
  // Where there is not room for all, the one on the line is among those that are seen.
  useEffect(() => {
    const row = group.current;
    const tab = row?.querySelector<HTMLElement>('[data-selected]');
    if (!row || !tab) return;
    const end = tab.offsetLeft + tab.offsetWidth;
    if (tab.offsetLeft < row.scrollLeft) row.scrollLeft = tab.offsetLeft;
    else if (end > row.scrollLeft + row.clientWidth) row.scrollLeft = end - row.clientWidth;
  }, [using, setups.length]);
  return (
    <Group
      ref={group}
      {...handlers}
      aria-label="Displayed on the line"
      data-many={many || undefined}
      selectionMode="single"
      disallowEmptySelection
      selectedKeys={[using]}
      onSelectionChange={(keys) => {
        const [key] = keys;
        if (key !== undefined) onUse(String(key));
      }}
    >
      {setups.map((setup, i) => (
        <ToggleButton
          key={setup.key}
          id={setup.key}
          className="tab"
          data-dragged={(drag?.to != null && drag.from === i) || undefined}
          data-here={drag?.to === i && drag.from !== i ? (drag.from > i ? 'before' : 'after') : undefined}
          style={small && !many ? { minWidth: 112 } : undefined}
          aria-label={
            many
              ? `${capital(setup.name)}, ${setup.level ?? ''} ${headline(setup.headline)}`.replace(', ,', ',')
              : undefined
          }
        >
          <b>
            {!small && !many && (
              <svg width="26" height="8" aria-hidden="true">
                <path d="M0,4L26,4" className={i === 0 ? 'found' : setup.key === using ? 'force' : 'other-plan'} />
              </svg>
            )}
            {many && setup.key !== using ? short(setup.name, i) : capital(setup.name)}
          </b>
          <span>
            {setup.level && <Mark state={setup.level} />}
            {setup.level && <span className="visually-hidden">{setup.level}: </span>}
            <i>{headline(setup.headline)}</i>
          </span>
        </ToggleButton>
      ))}
    </Group>
  );
});
