import { useLayoutEffect, useRef, useState, type RefObject } from 'react';

/** Height of an element in CSS pixels, kept as it changes; `first` until it is known. */
export function useHeight<T extends HTMLElement>(first: number): [RefObject<T | null>, number] {
  const ref = useRef<T | null>(null);
  const [height, setHeight] = useState(first);
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return;
    const measure = () => setHeight((old) => (element.clientHeight > 0 ? element.clientHeight : old));
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [ref, height];
}
