/** What lasts on a unit, and what all of it comes to: the strongest slow and mark count, lent shields add up. */
import type { Fight } from '../fight';
import { ILL } from '../numbers';
import type { Ill } from '../records';

/** One more thing that lasts. */
export function add(fight: Fight, unit: number, ill: Ill): void {
  fight.ills[unit].push(ill);
}

/** What is over goes; whether a boost was among it. */
export function dropExpired(fight: Fight, unit: number): boolean {
  const ills = fight.ills[unit];
  let boosts = false;
  for (let i = ills.length - 1; i >= 0; i--) {
    if (ills[i].until > fight.now) continue;
    if (ills[i].what === ILL.boost) boosts = true;
    ills.splice(i, 1);
  }
  return boosts;
}

/** Works out anew what all that lasts on a unit comes to. */
export function sumUp(fight: Fight, unit: number): void {
  let slowed = 0;
  let marked = -1;
  for (const { what, value } of fight.ills[unit]) {
    if (what === ILL.slow) slowed = Math.max(slowed, value);
    else if (what === ILL.mark) marked = Math.max(marked, value);
  }
  fight.marked[unit] = marked < 0 ? 1 : marked;
  fight.lent[unit] = lentTo(fight.ills[unit]);
  if (slowed !== fight.slowed[unit]) {
    fight.slowed[unit] = slowed;
    fight.setMobility(unit);
  }
}

/** What all shields lent to a unit come to. */
function lentTo(ills: readonly Ill[]): number {
  let lent = 0;
  for (let i = 0; i < ills.length; i++) if (ills[i].what === ILL.lent) lent += ills[i].value;
  return lent;
}

/** Lent shields go before its own: the one that ends first before the others, of equals the older. What they take together. */
export function takeLent(fight: Fight, unit: number, dealt: number): number {
  const ills = fight.ills[unit];
  let left = dealt;
  for (;;) {
    let first = -1;
    for (let i = 0; i < ills.length; i++) {
      if (ills[i].what === ILL.lent && ills[i].value > 0 && (first < 0 || ills[i].until < ills[first].until)) first = i;
    }
    if (first < 0) break;
    const taken = Math.min(ills[first].value, left);
    ills[first].value -= taken;
    left -= taken;
    if (ills[first].value > 0) break;
  }
  const before = fight.lent[unit];
  fight.lent[unit] = lentTo(ills);
  return Math.min(before, dealt);
}

/** Damage taken is remembered for as long as anybody asks back for it. */
export function remember(fight: Fight, unit: number, dealt: number): void {
  const { now } = fight;
  const recent = fight.recent[unit];
  let old = 0;
  while (old < recent.length && recent[old] <= now - fight.kinds[unit].remembers) old += 2;
  if (old > 0) recent.splice(0, old);
  recent.push(now, dealt);
}

/** Reels until then, at least; the damage that brought it about is spent. */
export function reel(fight: Fight, unit: number, until: number): void {
  fight.staggeredUntil[unit] = Math.max(fight.staggeredUntil[unit], until);
  fight.recent[unit].length = 0;
}

export function endReeling(fight: Fight, unit: number): void {
  fight.staggeredUntil[unit] = 0;
}

/** Damage does not stagger it again before then. */
export function steady(fight: Fight, unit: number, until: number): void {
  fight.steadyUntil[unit] = until;
}

/** With its life ends what lasted on it. */
export function endAll(fight: Fight, unit: number): void {
  fight.ills[unit].length = 0;
  fight.recent[unit].length = 0;
}

/** It comes back as if nothing had ever lasted on it. */
export function clearAll(fight: Fight, unit: number): void {
  fight.slowed[unit] = fight.lent[unit] = fight.staggeredUntil[unit] = fight.steadyUntil[unit] = 0;
  fight.marked[unit] = 1;
}
