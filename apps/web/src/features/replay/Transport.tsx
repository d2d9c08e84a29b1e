import { type Replay } from '@insidia/core';
import { decides, type Event, isPartyHit } from './moments';
import type { Playback } from './usePlayback';
import { replayTime } from './replayTime';

const SPEEDS = [0.25, 0.5, 1, 2, 4];

interface TransportProps {
  replay: Replay;
  playback: Playback;
  /** s */
  length: number;
  selected: number | undefined;
  names: boolean;
  follows: boolean;
  /** To the nearest event that fits. */
  onJump: (way: -1 | 1, fits: (event: Event) => boolean) => void;
  onNames: (names: boolean) => void;
  onFollows: (follows: boolean) => void;
}

/** Playing, stepping, jumping to the next of something, and what the stage shows besides. */
export function Transport({ replay, playback, length, selected, names, follows, onJump, onNames, onFollows }: TransportProps) {
  const { time, playing, speed, setPlaying, setSpeed, go, stopAt } = playback;
  return (
    <div className="mt-1.5 flex flex-wrap items-center gap-1 border-t px-4 pt-1.5">
      <span className="w-[92px] font-title text-page tabular-nums" data-testid="clock">
        {replayTime(replay, time, 2)}
      </span>
      <button type="button" className="btn" aria-label="Previous event" title="previous event (p)" onClick={() => onJump(-1, () => true)}>
        ‹‹
      </button>
      <button type="button" className="btn" aria-label="A step back" title="a step back (←)" onClick={() => stopAt(time - replay.step)}>
        ‹
      </button>
      <button
        type="button"
        className="btn btn-primary w-[58px] justify-center"
        onClick={() => (time >= length && go(0), setPlaying(!playing))}
      >
        {playing ? 'Pause' : 'Play'}
      </button>
      <button type="button" className="btn" aria-label="A step on" title="a step on (→)" onClick={() => stopAt(time + replay.step)}>
        ›
      </button>
      <button type="button" className="btn" aria-label="Next event" title="next event (n)" onClick={() => onJump(1, () => true)}>
        ››
      </button>
      <span role="radiogroup" aria-label="Speed" className="ml-1 flex">
        {SPEEDS.map((each) => (
          <button key={each} type="button" role="radio" aria-checked={speed === each} className="switch" onClick={() => setSpeed(each)}>
            ×{each === 0.25 ? '¼' : each === 0.5 ? '½' : each}
          </button>
        ))}
      </span>
      <button type="button" className="btn" onClick={() => onJump(1, isPartyHit(replay))}>
        Next hit
      </button>
      <button type="button" className="btn" disabled={selected === undefined} onClick={() => onJump(1, decides(selected))}>
        Its next decision
      </button>
      <span className="flex-1" />
      <button type="button" className="switch" aria-pressed={names} data-state={names ? 'on' : 'off'} onClick={() => onNames(!names)}>
        names
      </button>
      <button
        type="button"
        className="switch"
        aria-pressed={follows}
        data-state={follows ? 'on' : 'off'}
        disabled={selected === undefined}
        onClick={() => onFollows(!follows)}
      >
        follow
      </button>
    </div>
  );
}
