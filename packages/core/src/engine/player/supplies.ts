/** What a player has of rounds, healing items and lives, and how soon each of its answers can be given again. */
import type { Fight } from '../fight';

export function fillSupplies(fight: Fight, unit: number): void {
  const player = fight.kinds[unit].player!;
  reload(fight, unit);
  fight.doses[unit] = player.doses;
  fight.livesLeft[unit] = player.lives;
  for (let a = 0; a < player.answers.length; a++) fight.answerReady[unit].push(0);
}

export function reload(fight: Fight, unit: number): void {
  fight.rounds[unit] = fight.kinds[unit].player!.rounds;
}

export function takeRound(fight: Fight, unit: number): void {
  fight.rounds[unit] = Math.max(0, fight.rounds[unit] - 1);
}

export function takeDose(fight: Fight, unit: number): void {
  fight.doses[unit]--;
}

export function loseLife(fight: Fight, unit: number): void {
  fight.livesLeft[unit]--;
}

/** @param answer its number in the unit's order @param ready µs */
export function useAnswer(fight: Fight, unit: number, answer: number, ready: number): void {
  fight.answerReady[unit][answer] = ready;
}
