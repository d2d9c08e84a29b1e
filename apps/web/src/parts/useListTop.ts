import { useEffect, useRef, useState } from 'react';

/**
 * For a list that is searched by typing: what is found stands at its top, and the list is put there; it would stay where what
 * was chosen before has gone to.
 */
export function useListTop() {
  const list = useRef<HTMLDivElement>(null);
  const [typed, setTyped] = useState('');
  useEffect(() => {
    // After the list has been put in order and has scrolled to what it takes for chosen.
    const frame = requestAnimationFrame(() => list.current?.scrollTo({ top: 0 }));
    return () => cancelAnimationFrame(frame);
  }, [typed]);
  return { list, input: { value: typed, onValueChange: setTyped } };
}
