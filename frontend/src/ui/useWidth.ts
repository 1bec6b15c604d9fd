import { useLayoutEffect, useRef, useState, type RefObject } from 'react';

/** Width of an element in CSS pixels, kept as it changes; `first` until it is known. */
export function useWidth<T extends HTMLElement>(first: number): [RefObject<T | null>, number] {
  const ref = useRef<T | null>(null);
  const [width, setWidth] = useState(first);
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return;
    const measure = () => setWidth((old) => (element.clientWidth > 0 ? element.clientWidth : old));
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, width];
}
