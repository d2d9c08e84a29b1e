/** Fights in turns: twenty units on 30 × 20 squares for thirty rounds, of a runner that is warm; duels as a readout runs them. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from '../system.mjs';
import { processor } from './processor.mjs';

const unit = (id, side, moves, to) => ({
  id,
  name: id,
  side,
  health: { max: 400 },
  choice: { priorities: [{ entries: [{ attack: 'a' }] }] },
  attacks: [{ id: 'a', name: 'a', delivery: to > 1 ? 'hitscan' : 'melee', arc: 360, effects: { damage: { amount: 6 } }, rounds: { to } }],
  states: [{ id: 's', name: 's', does: 'approach' }],
  rounds: { moves },
});

const wall = (id, x, y, deep) => ({
  id,
  name: id,
  height: 3,
  corners: [
    { x, y },
    { x: x + 2, y },
    { x: x + 2, y: y + deep },
    { x, y: y + deep },
  ],
});

const group = (id, enemy) => ({ id, enemy, count: { min: 8, max: 8 }, at: ['east'], alerted: true });

/** Four of the party against sixteen, past two walls. */
const DOCUMENT = {
  format: 'insidia-project',
  version: 4,
  id: 'turns',
  name: 'Turns',
  units: [unit('ours', 'party', 5, 6), unit('near', 'enemy', 4, 1), unit('far', 'enemy', 4, 5)],
  arenas: [
    {
      id: 'hall',
      name: 'Hall',
      width: 30,
      depth: 20,
      partyStart: { x: -12, y: 0 },
      spawnPoints: [{ id: 'east', name: 'east', x: 12, y: 0, scatter: 6 }],
      walls: [wall('first', -1, -6, 9), wall('second', 5, -3, 11)],
    },
  ],
  encounters: [
    {
      id: 'fight',
      name: 'Fight',
      arena: 'hall',
      clock: 'rounds',
      rounds: { limit: 30, order: 'byOrder' },
      party: [0, 1, 2, 3].map((i) => ({ id: `m${i}`, unit: 'ours' })),
      waves: [{ id: 'w', name: 'w', groups: [group('g', 'near'), group('h', 'far')] }],
    },
  ],
};

/** @returns ms a run, the least of five batches, with the rounds that they last in the median */
export function turns({ Runner, compile, parseProject }) {
  const runner = new Runner(compile(parseProject(DOCUMENT), { encounter: 'fight' }));
  const lengths = [];
  const batch = (keep) =>
    processor(() => {
      for (let seed = 1; seed <= 200; seed++) {
        const { length } = runner.run(seed);
        if (keep) lengths.push(length / 1e6);
      }
    }) / 200;
  batch(true);
  const took = Math.min(...Array.from({ length: 5 }, () => batch(false)));
  return { took, rounds: lengths.sort((a, b) => a - b)[100] };
}

/** An enemy that holds where it stands, one that comes up to strike, one that lives long and calls others. */
const DUELS = ['lamp-snail', 'binder', 'caller-vine'];

/** @returns by enemy, ms of processor from a changed number to the readout of 200 duels in turns, warm: the least of five */
export function turnedDuels({ DuelWork, parseProject }) {
  const project = parseProject(JSON.parse(readFileSync(join(ROOT, 'demo/archive.insidia.json'), 'utf8')));
  const once = (id, more) => {
    const edited = structuredClone(project);
    edited.units.find((one) => one.id === id).health.max += more;
    return processor(() => {
      const work = new DuelWork(edited, { kind: 'duel', id }, 1);
      work.advance(200);
      work.result();
    });
  };
  for (let round = 0; round < 2; round++) for (const id of DUELS) once(id, 0);
  return Object.fromEntries(
    DUELS.map((id) => [project.units.find((one) => one.id === id).name, Math.min(...[1, 2, 3, 4, 5].map((more) => once(id, more)))]),
  );
}
