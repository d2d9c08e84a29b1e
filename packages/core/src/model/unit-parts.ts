/** Taking parts out of a unit so that nothing is left that refers to them; ids for new ones. */
import type { Condition } from './condition';
import type { Unit } from './unit';

/** An id made of a name, different from those taken: "Quill fan" → quill-fan, quill-fan-2. */
export function idFor(name: string, taken: Iterable<string>): string {
  const used = new Set(taken);
  const plain =
    name
      .normalize('NFD')
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 56)
      .replace(/-+$/, '') || 'item';
  if (!used.has(plain)) return plain;
  for (let i = 2; ; i++) if (!used.has(`${plain}-${i}`)) return `${plain}-${i}`;
}

/** A name that nobody else has: "Quill", "Quill 2". */
export function nameFor(name: string, taken: Iterable<string>): string {
  const used = new Set(taken);
  if (!used.has(name)) return name;
  const stem = name.replace(/ \d+$/, '');
  for (let i = 2; ; i++) if (!used.has(`${stem} ${i}`)) return `${stem} ${i}`;
}

/** The attacks that a condition speaks of. */
export function attacksNamed(condition: Condition | undefined): string[] {
  if (!condition) return [];
  const own = (condition.subject === 'charges' || condition.subject === 'attackReady') && condition.of !== undefined ? [condition.of] : [];
  return [...own, ...(condition.parts ?? []).flatMap(attacksNamed)];
}

const speaksOf = (condition: Condition | undefined, attack: string) => attacksNamed(condition).includes(attack);

/** Takes an attack out of a unit, with everything that refers to it. Changes the unit. */
export function dropAttack(unit: Unit, id: string): void {
  unit.attacks = unit.attacks.filter((attack) => attack.id !== id);
  for (const attack of unit.attacks) {
    if (attack.next?.attack === id) delete attack.next;
    if (speaksOf(attack.condition, id)) delete attack.condition;
  }
  for (const priority of unit.choice.priorities) {
    priority.entries = priority.entries.filter((entry) => entry.attack !== id);
    if (speaksOf(priority.condition, id)) delete priority.condition;
    for (const entry of priority.entries) if (speaksOf(entry.condition, id)) delete entry.condition;
  }
  const left = unit.choice.priorities.filter(({ entries }) => entries.length > 0);
  unit.choice.priorities = left.length ? left : unit.choice.priorities.slice(0, 1);
  for (const state of unit.states) {
    state.only = state.only?.filter((attack) => attack !== id);
    if (state.only === undefined) delete state.only;
    if (state.onEnter?.attack === id) delete state.onEnter.attack;
    state.leaves = state.leaves.filter(({ when }) => !speaksOf(when, id));
  }
  if (unit.onDeath.attack === id) delete unit.onDeath.attack;
  if (unit.player?.magazine) unit.player.magazine.attacks = unit.player.magazine.attacks.filter((attack) => attack !== id);
}

/** Takes a state out of a unit, with everything that refers to it. Changes the unit. */
export function dropState(unit: Unit, id: string): void {
  unit.states = unit.states.filter((state) => state.id !== id);
  for (const state of unit.states) state.leaves = state.leaves.filter(({ to }) => to !== id);
  if (unit.startsIn === id) {
    if (unit.states[0]) unit.startsIn = unit.states[0].id;
    else delete unit.startsIn;
  }
  if (unit.weakPoint) unit.weakPoint.states = unit.weakPoint.states.filter((state) => state !== id);
  unit.health.gates = unit.health.gates.filter(({ state }) => state !== id);
}
