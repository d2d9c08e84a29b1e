/** What a stretch of time without an attack is called. */
const USE_WORDS: Record<string, string> = {
  windup: 'wind-up',
  active: 'active',
  recovery: 'recovery',
  cooldown: 'cooldown',
  charges: 'no charge',
  energy: 'energy',
  condition: 'condition',
  slot: 'no slot',
  toBand: 'moving to band',
  line: 'no line',
  staggered: 'staggered',
  evading: 'evading',
  reloading: 'reloading',
  mending: 'mending',
  goingHome: 'going home',
  range: 'out of range',
  facing: 'facing',
  pause: 'pause',
  noTarget: 'no target',
  noAttack: 'no attack in state',
};
export const wordForUse = (use: string) => USE_WORDS[use] ?? use;
