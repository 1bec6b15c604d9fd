/** Parts of a page whose code comes apart from it: fetched when first wanted, or as soon as anybody touches the page. */
import { lazy, Suspense, useState, type ComponentType } from 'react';
import styled from 'styled-components';

const Away = styled.p`
  position: fixed;
  z-index: 20;
  inset: auto 0 0 0;
  padding: var(--s8) var(--s16);
  background: var(--paper);
  border-top: var(--r-heavy) solid var(--ink);
`;
const NotThere = () => (
  <Away role="alert">This part of the page could not be fetched: Kobrix is not there now. Try again when it is.</Away>
);

const Nothing = () => null;

/** A part that is not in the first load; `Wait` stands for it meanwhile. Fetched anew at its next opening where it could not be. */
export function later<P extends object>(load: () => Promise<ComponentType<P>>, Wait: ComponentType<P> = Nothing) {
  const code = async (): Promise<{ default: ComponentType<P> }> => {
    try {
      return { default: await load() };
    } catch {
      Part = lazy(code);
      return { default: NotThere };
    }
  };
  let Part = lazy(code);
  const warm = () => void load().catch(() => undefined);
  for (const touch of ['pointerdown', 'keydown']) window.addEventListener(touch, warm, { once: true, capture: true });
  return function Later(props: P) {
    const [Now] = useState(() => Part);
    return (
      <Suspense fallback={<Wait {...props} />}>
        <Now {...props} />
      </Suspense>
    );
  };
}
