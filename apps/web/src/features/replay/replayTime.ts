import { type Replay, clockTime, stepAt } from '@insidia/core';

/** "1:05.25"; "round 3" where the fight takes turns. */
export function replayTime(replay: Replay, seconds: number, places = 0): string {
  return replay.rounds ? `round ${replay.rounds[stepAt(replay, seconds)]}` : clockTime(seconds, places);
}
