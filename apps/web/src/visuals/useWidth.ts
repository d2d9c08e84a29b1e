import { type RefObject, useLayoutEffect, useRef, useState } from 'react';

interface Size {
  width: number;
  height: number;
}

/** Width and height of an element in pixels, followed as they change. */
export function useSize<T extends HTMLElement>(initial: Size): [RefObject<T | null>, Size] {
  const ref = useRef<T>(null);
  const [size, setSize] = useState(initial);
  const { width: firstWidth, height: firstHeight } = initial;
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return;
    const became = ({ width, height }: Size) => {
      const next = { width: Math.round(width) || firstWidth, height: Math.round(height) || firstHeight };
      setSize((old) => (old.width === next.width && old.height === next.height ? old : next));
    };
    const observer = new ResizeObserver(([entry]) => became(entry.contentRect));
    observer.observe(element);
    became(element.getBoundingClientRect());
    return () => observer.disconnect();
  }, [firstWidth, firstHeight]);
  return [ref, size];
}

/** Width of an element in pixels, followed as it changes. */
export function useWidth<T extends HTMLElement>(initial: number): [RefObject<T | null>, number] {
  const [ref, { width }] = useSize<T>({ width: initial, height: 0 });
  return [ref, width];
}
