/** What time and distance are told in: seconds and metres, or rounds and cells where a fight takes turns. */

export const CLOCKS = ['continuous', 'rounds'] as const;
export type Clock = (typeof CLOCKS)[number];

/** @param fight tables of one, or whatever says how its turns go */
export const clockOf = ({ rounds }: { readonly rounds: unknown }): Clock => (rounds ? 'rounds' : 'continuous');

/** The units of seconds and metres, as a fight in turns tells them. */
const IN_ROUNDS: Readonly<Record<string, string>> = {
  s: 'rounds',
  m: 'cells',
  'm/s': 'cells',
  'hp/s': 'hp/round',
  '/s': '/round',
  '%/s': '%/round',
};

/** What stands behind a number that is told in seconds or metres where a fight goes on by itself. */
export const unitIn = (clock: Clock, unit: string): string => (clock === 'rounds' ? (IN_ROUNDS[unit] ?? unit) : unit);

/** "3 cells", "1 cell", "2.5 m". @param text the number as it is shown */
export function withUnit(clock: Clock, text: string, unit: string): string {
  const own = unitIn(clock, unit);
  return `${text} ${text === '1' && (own === 'cells' || own === 'rounds') ? own.slice(0, -1) : own}`;
}

/** "1 turn", "3 turns" */
export const countedTurns = (turns: number): string => `${turns} ${turns === 1 ? 'turn' : 'turns'}`;
