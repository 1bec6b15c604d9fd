/** A value that is moved faster than it can be answered for: one question at a time, only the newest place waits. */
import { useCallback, useEffect, useRef, useState } from 'react';

export type Take = (value: number, gesture: string) => Promise<unknown>;

const NEXT_MS = 500;
const REST_MS = 2500;

const going = new Set<Promise<void>>();
/** Once nothing that was moved waits for its answer any more: what is undone then is the whole gesture. */
export const whenStill = () => Promise.allSettled([...going]);

/** Whether a page shows a place, but for how its figure is rounded. */
const shows = (value: number, place: number) => Math.abs(value - place) <= 0.002 * Math.abs(place) + 1e-9;

/**
 * The place shown until it is answered for, or null; and the way to move it.
 * The next question waits until the last answer is drawn, that is, until `value` is the place; an answer that is never drawn so is
 * waited for NEXT_MS where another place waits, else REST_MS more: given up too early, the ring would stand where it was, and the
 * next key would count from there.
 */
export function useCoalesced(value: number, onTake: Take) {
  const [moved, setMoved] = useState<number | null>(null);
  const wanted = useRef<[number, string] | null>(null);
  const busy = useRef(false);
  const latest = useRef(onTake);
  const drawn = useRef({ value, then: () => {} });
  useEffect(() => void (latest.current = onTake));
  useEffect(() => {
    drawn.current.value = value;
    drawn.current.then();
  }, [value]);
  useEffect(() => () => void (wanted.current = null), []);
  const move = useCallback((to: number, gesture: string): Promise<void> => {
    setMoved(to);
    wanted.current = [to, gesture];
    if (busy.current) return Promise.resolve();
    busy.current = true;
    const run = async () => {
      while (wanted.current) {
        const [next, of] = wanted.current as [number, string];
        wanted.current = null;
        try {
          await latest.current(next, of);
        } catch {
          break; // refused, and said so: the place goes back
        }
        await new Promise<void>((then) => {
          const look = () => {
            if (shows(drawn.current.value, next)) then();
          };
          drawn.current.then = look;
          window.setTimeout(() => (wanted.current ? then() : window.setTimeout(then, REST_MS)), NEXT_MS);
          look();
        });
      }
      busy.current = false;
      wanted.current = null;
      setMoved(null);
    };
    const running = run().finally(() => going.delete(running));
    going.add(running);
    return running;
  }, []);
  return { moved, move };
}
