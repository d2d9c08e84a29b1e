import { type RefObject, useLayoutEffect, useRef, useState } from 'react';

/** Width of an element in pixels, followed as it changes. */
export function useWidth<T extends HTMLElement>(initial: number): [RefObject<T | null>, number] {
  const ref = useRef<T>(null);
  const [width, setWidth] = useState(initial);
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => setWidth(Math.round(entry.contentRect.width)));
    observer.observe(element);
    setWidth(Math.round(element.getBoundingClientRect().width) || initial);
    return () => observer.disconnect();
  }, [initial]);
  return [ref, width];
}
