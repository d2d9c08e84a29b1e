import { type RefObject, useCallback, useEffect, useRef, useState } from 'react';

export interface Clock {
  time: number;
  playing: boolean;
  speed: number;
}

export interface Playback {
  time: number;
  playing: boolean;
  speed: number;
  /** What the stage draws by, at every frame. */
  clock: RefObject<Clock>;
  setPlaying: (playing: boolean | ((old: boolean) => boolean)) => void;
  setSpeed: (speed: number) => void;
  /** To an instant, whether it plays or not. */
  go: (to: number) => void;
  /** To an instant, to stay there. */
  stopAt: (to: number) => void;
}

/** The clock of a replay. Panels follow ten times a second; the stage draws itself at every frame. @param length s */
export function usePlayback(length: number, at: number): Playback {
  const [time, setTime] = useState(() => Math.min(length, Math.max(0, at)));
  const [playing, setPlaying] = useState(false);
  const [speed, setSpeed] = useState(1);
  const clock = useRef<Clock>({ time, playing, speed });
  useEffect(() => {
    clock.current = { ...clock.current, playing, speed };
  }, [playing, speed]);
  const go = useCallback(
    (to: number) => {
      const next = Math.min(length, Math.max(0, to));
      clock.current.time = next;
      setTime(next);
    },
    [length],
  );
  const stopAt = useCallback(
    (to: number) => {
      setPlaying(false);
      go(to);
    },
    [go],
  );
  useEffect(() => {
    if (!playing) return;
    let last = performance.now();
    let told = last;
    let frame = 0;
    const tick = (now: number) => {
      const next = clock.current.time + ((now - last) / 1000) * clock.current.speed;
      last = now;
      clock.current.time = Math.min(length, next);
      if (now - told > 100 || next >= length) {
        told = now;
        setTime(clock.current.time);
      }
      if (next >= length) setPlaying(false);
      else frame = requestAnimationFrame(tick);
    };
    frame = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(frame);
  }, [playing, length]);
  return { time, playing, speed, clock, setPlaying, setSpeed, go, stopAt };
}
