/** Damage over time: what a hit leaves on its victim, tick by tick, whatever becomes of whoever left it. */
import { EVENT } from '../../record/log';
import type { Fight } from '../fight';
import { DUE } from '../time/queue';
import { hurt } from './damage';

/** A tick is due each so long after the last. One beyond the effect's end hurts nobody: with it the effect is put away. */
export function tick(fight: Fight, id: number, life: number): void {
  const effect = fight.overTime.all[id];
  if (!effect.running || effect.life !== life) return;
  if (fight.now > effect.endsAt) return fight.overTime.end(id);
  const { amount, every, type } = fight.attackOf(effect.attacker, effect.attack).effects.overTime!;
  if (!fight.invulnerable[effect.victim]) {
    const { guardCosine } = fight.kinds[effect.victim];
    hurt(fight, EVENT.tick, effect.attacker, effect.victim, effect.attack, amount, type, guardCosine <= -1);
  }
  fight.queue.push(fight.ends(effect.victim, every), DUE.tick, effect.attacker, life, id);
}
