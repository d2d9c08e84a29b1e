/**
 * Fights that begin with nothing: each from a new project to what the fight does, as somebody would make it who has read no page,
 * with every click, chord and typed value counted.
 */
import { describe, expect, test } from '@jest/globals';
import type { Page } from 'puppeteer-core';
import { type Acts, BEAT, Keys, STATES, begun } from './support/acts';
import { group } from './support/bench';
import { suite } from './support/suite';
import { savedState } from './support/world';

const own = suite('nothing');
const { stored } = own;

const FIELDS = 'main > div';
const WHOLE = group('The whole encounter');
const READOUT = 'aside[aria-label=Readout]';

/** Actions of each task, told once all are done. */
const counts: Record<string, number> = {};

/** The fight is made: no task may have taken more than sixty actions. */
async function over(name: string, { page, count }: Acts): Promise<void> {
  counts[name] = count;
  await savedState(page, 'saved');
  expect([name, count, count <= 60]).toEqual([name, count, true]);
}

/** What a measure of the readout came to, once its runs are done. */
async function figure(page: Page, measure: string): Promise<number> {
  const selector = `${READOUT} [data-measure="${measure}"] [data-median]`;
  await page.waitForFunction(() => document.querySelector('aside[aria-label=Readout]')?.getAttribute('aria-busy') === 'false');
  await page.waitForSelector(selector);
  return Number(await page.$eval(selector, (one) => one.getAttribute('data-median')));
}

const unitOf = (project: any, name: string) => project.units.find((unit: any) => unit.name === name);

describe('from nothing', () => {
  test('1: a guardian pushes about itself when two are within 3 m, else looses twelve burning shots; five small ones against it', async () => {
    const { acts, page, id } = await begun(own, 'Guardian');
    await acts.enemy('slow, heavy, announced', 'Guardian');
    await acts.type('main', 'Eye', 3);
    await acts.click(FIELDS, 'all fields');
    await acts.type(FIELDS, 'Muzzle', 2.8);
    await acts.attack('a burst of shots', 'Volley');
    await acts.type(BEAT, 'Active', 1.1);
    await acts.type(BEAT, 'Hits every', 0.1);
    await acts.click(BEAT, '+ effect …');
    await acts.click('.sheet', '+ damage over time');
    await acts.click('main', 'Slam in priority 1: more');
    await acts.condition('Slam in priority 1 is usable if');
    await acts.click('.sheet', 'Add a condition');
    await acts.compare('the number of foes', { is: 'above', value: 1, within: 3 });
    await acts.enemy('rushes and bites', 'Small one');
    await acts.encounter('one wave', 'Five against it', 'Small one');
    await acts.choose(WHOLE, 'Member 1', 'Guardian');
    await acts.type(group('Group'), 'How many', 5);
    const length = await figure(page, 'Length');
    expect(length).toBeGreaterThan(2);
    await over('1', acts);
    const made = unitOf(await stored(id), 'Guardian');
    expect(made.attacks[1]).toMatchObject({ beat: { active: 1.1, every: 0.1 }, effects: { overTime: { amount: 2 } } });
    expect(made.body).toMatchObject({ eyeHeight: 3, muzzleHeight: 2.8 });
  });

  test('2: a mender of friends only: energy, a cast that can be broken off, flight from foes, a distance to friends', async () => {
    const { acts, page, id } = await begun(own, 'Mender');
    await acts.enemy('mends friends', 'Mender');
    await acts.click(BEAT, 'all fields');
    await acts.type(BEAT, 'Energy cost', 15);
    await acts.type(BEAT, 'Broken by', 6);
    await acts.type(STATES, 'Keeps from', 3);
    await acts.type(STATES, 'Keeps to', 6);
    await acts.enemy('slow, heavy, announced', 'Heavy');
    const alone = await figure(page, 'Time-to-kill');
    await acts.click(READOUT, 'with others, from behind, over a wall …');
    await acts.click('.sheet', 'somebody beside it …');
    await acts.chord('Escape');
    await page.waitForFunction(() => document.querySelector('aside[aria-label=Readout] .note')?.textContent?.includes('1 Mender'));
    const helped = await figure(page, 'Time-to-kill');
    expect(helped).toBeGreaterThan(alone);
    await over('2', acts);
    expect(unitOf(await stored(id), 'Mender')).toMatchObject({
      energy: { max: 60 },
      attacks: [{ energy: 15, targets: 'friends', interruptible: { hit: 6 } }],
      states: [{ near: 3, far: 6 }, { does: 'flee' }],
    });
  });

  /** Sees in an arc, chases, strikes, rests; its bite is made to land again and again, and mended. */
  async function wanderer({ acts, page, id }: Awaited<ReturnType<typeof begun>>): Promise<void> {
    await acts.enemy('rushes and bites', 'Wanderer');
    await acts.click(FIELDS, 'all fields');
    await acts.type(FIELDS, 'Sight angle', 120);
    await acts.state('wanders until it sees somebody', 'Stray');
    await acts.state('holds still after a blow', 'Rest');
    await acts.type(BEAT, 'Active', 0.4);
    await acts.type(BEAT, 'Hits every', 0.1);
    await acts.click(BEAT, 'at every hit: 28 hp');
    await page.waitForSelector('main h1 ~ button.text-warn');
    expect(await figure(page, 'Time-to-kill')).toBeGreaterThan(1);
    await acts.click('main', '1 warning');
    await acts.click('.sheet', 'Hit once a use');
    await acts.chord('Escape');
    await page.waitForFunction(() => !document.querySelector('main h1 ~ button.text-warn'));
    expect(await figure(page, 'Time-to-kill')).toBeGreaterThan(1);
    await savedState(page, 'saved');
    const made = unitOf(await stored(id), 'Wanderer');
    expect([made.senses.angle, made.startsIn, made.states.map(({ does }: any) => does)]).toEqual([
      120,
      'stray',
      ['approach', 'wander', 'hold'],
    ]);
    expect(made.attacks[0]).toMatchObject({ hits: { perTarget: 'once' }, beat: { active: 0.4, every: 0.1 } });
  }

  test('3: a wanderer sees in an arc, chases, strikes, rests; a bite that lands again and again is found and mended', async () => {
    const task = await begun(own, 'Wanderer');
    await wanderer(task);
    await over('3', task.acts);
  });

  test('3 again, by the keyboard alone', async () => {
    const { page, id } = await begun(own, 'Wanderer by keys');
    await wanderer({ acts: new Keys(page), page, id });
  });

  test('4: one does one of three things each half second; one changes its direction each two seconds', async () => {
    const { acts, page, id } = await begun(own, 'Deciders');
    await acts.enemy('rushes and bites', 'Fickle');
    await acts.state('circles its target', 'Circle');
    await acts.state('keeps a distance', 'Keep away');
    await acts.chooseState('Rush');
    await acts.click(STATES, 'Rush decides at intervals');
    await acts.click(STATES, 'Add a way out of Rush');
    await acts.click(STATES, 'Add a way out of Rush');
    for (const name of ['Circle', 'Keep away']) {
      await acts.chooseState(name);
      await acts.click(STATES, `Add a way out of ${name}`);
      await acts.condition(`${name} leaves for Rush when`);
      await acts.click('.sheet', 'Take away');
      await acts.type(STATES, 'Way 1 not before', 0.5);
    }
    expect(await figure(page, 'Time-to-kill')).toBeGreaterThan(1);
    await acts.enemy('empty', 'Drifter');
    await acts.state('plain: wander', 'Drift');
    await acts.click(STATES, 'from place to place; keep directions for a time …');
    await acts.type(STATES, 'Keeps it from', 2);
    await acts.type(STATES, 'Keeps it to', 2);
    expect(await figure(page, 'Time-to-kill')).toBeGreaterThan(1);
    await over('4', acts);
    const kept = await stored(id);
    expect(unitOf(kept, 'Fickle').states.map(({ leaves }: any) => leaves.map(({ to, weight, after }: any) => [to, weight, after]))).toEqual(
      [
        [
          ['circle', 1, 0],
          ['keep-away', 1, 0],
        ],
        [['rush', undefined, 0.5]],
        [['rush', undefined, 0.5]],
      ],
    );
    expect(unitOf(kept, 'Drifter').states[0].roams).toMatchObject({ min: 2, max: 2 });
  });

  test('5: a wrecker of a thing, distracted by who hurts it, hunts once it is gone, flees below 30 %; its conduct is copied to another', async () => {
    const { acts, page, id } = await begun(own, 'Wrecker');
    await acts.section('Arenas');
    await acts.click('main', '+ thing');
    await acts.section('Enemies');
    await acts.enemy('rushes and bites', 'Wrecker');
    await acts.state('wrecks a thing', 'Wreck');
    await acts.state('flees when badly hurt', 'Flee');
    await acts.chooseState('Wreck');
    await acts.click(STATES, 'all fields');
    await acts.click(STATES, 'Copy state');
    await acts.encounter('one wave', 'At the thing');
    await acts.click(WHOLE, 'Thing');
    expect(await figure(page, 'Length')).toBeGreaterThan(2);
    await acts.section('Enemies');
    await acts.enemy('guards a place', 'Another');
    await acts.click(STATES, 'Paste state …');
    await acts.click('[role=dialog].sheet', 'Paste');
    expect(await figure(page, 'Time-to-kill')).toBeGreaterThan(1);
    await over('5', acts);
    const kept = await stored(id);
    const made = unitOf(kept, 'Wrecker');
    expect([made.startsIn, made.states.map(({ id: one }: any) => one)]).toEqual(['wreck', ['rush', 'wreck', 'flee']]);
    expect(made.states[1]).toMatchObject({
      does: 'goTo',
      strikes: 'hinders',
      leaves: [{ to: 'flee' }, { to: 'rush', when: { subject: 'pointDestroyed' } }],
    });
    expect(unitOf(kept, 'Another').states.at(-1)).toMatchObject({ id: 'wreck', does: 'goTo', strikes: 'hinders' });
    expect(kept.encounters[0].ends.defend).toEqual([kept.arenas[0].points[0].id]);
  });

  test('6: a boss by the clock stops the trickle, moves up and down firing from two muzzles, and is worth a hundred', async () => {
    const { acts, page, id } = await begun(own, 'By the clock');
    await acts.enemy('keeps a distance and shoots', 'Boss');
    await acts.click(FIELDS, 'all fields');
    await acts.type(FIELDS, 'Worth', 100);
    await acts.click(BEAT, 'all fields');
    await acts.choose(BEAT, 'Moving', 'freely');
    await acts.click(BEAT, 'add a muzzle');
    await acts.click(BEAT, 'add a muzzle');
    await acts.state('plain: walk a round', 'Up and down');
    await acts.click(STATES, 'add a stop');
    await acts.type(`${STATES} ${group('Stop 2')}`, 'North', 6);
    await acts.click(STATES, 'all fields');
    await acts.choose(STATES, 'Foes on the way', 'are struck in reach');
    await acts.click(STATES, 'Begin here');
    await acts.enemy('rushes and bites', 'Small one');
    await acts.encounter('one alone', 'The clock', 'Boss');
    await acts.choose(group('Alone'), 'Starts', 'at a time');
    await acts.type(group('Alone'), 'At', 15);
    await acts.wave('again and again', 'Trickle', 'Small one');
    await acts.choose(group('Trickle'), 'Starts', 'at once');
    await acts.click(WHOLE, 'add an event');
    await acts.condition('Event happens when');
    await acts.compare('has started:', {});
    await acts.choose(WHOLE, 'Event does 1', 'stop a wave');
    await acts.choose(WHOLE, 'Event wave 1', 'Trickle');
    expect(await figure(page, 'Length')).toBeGreaterThan(15);
    await page.waitForSelector(`${READOUT} [data-measure=Score] [data-mean]`);
    expect(Number(await page.$eval(`${READOUT} [data-measure=Score] [data-mean]`, (one) => one.getAttribute('data-mean')))).toBeGreaterThan(
      50,
    );
    await over('6', acts);
    const kept = await stored(id);
    const boss = unitOf(kept, 'Boss');
    expect([boss.onDeath.worth, boss.startsIn, boss.attacks[0].projectile.muzzles.length]).toEqual([100, 'up-and-down', 2]);
    const [made] = kept.encounters;
    expect(made.waves.map(({ start, at }: any) => [start, at])).toEqual([
      ['clock', 15],
      ['atOnce', 0],
    ]);
    expect(made.events[0]).toMatchObject({ when: { subject: 'waveStarted', of: 'alone' }, then: [{ does: 'stopWave', of: 'trickle' }] });
  });

  test('7: three points, one of three kinds, 5 to 12, at most ten alive, five times over; then three waves of two at 80 %, with a target', async () => {
    const { acts, page, id } = await begun(own, 'Waves');
    await acts.enemy('rushes and bites', 'Rusher');
    await acts.enemy('keeps a distance and shoots', 'Shooter');
    await acts.enemy('bursts', 'Burster');
    await acts.section('Arenas');
    for (const name of ['East', 'North', 'South']) {
      await acts.thing(`spawn point ${name}`);
      await acts.type(group('Chosen'), 'Scatter', 5);
    }
    await acts.encounter('empty', 'Waves');
    await acts.wave('a mixed handful', 'Many');
    await acts.type(group('Group'), 'From', 5);
    await acts.type(group('Group'), 'To', 12);
    await acts.click(group('Many'), 'more …');
    await acts.click('.sheet', 'comes again …');
    await acts.type('.sheet', 'Times', 5);
    await acts.type('.sheet', 'Pause', 5);
    await acts.chord('Escape');
    await acts.click(WHOLE, 'a cap on the living …');
    await acts.type(WHOLE, 'Alive at most', 10);
    await acts.wave('a reserve', 'First');
    await acts.choose(group('Group'), 'Goes for', 'Opponent');
    await acts.click(group('First'), 'add a group');
    await acts.choose(group('Group'), 'Brings', 'Shooter');
    await acts.click(group('First'), 'Copy First');
    await page.waitForSelector(group('First 2'));
    await acts.click(group('First 2'), 'Copy First 2');
    await page.waitForSelector(group('First 3'));
    expect(await figure(page, 'Length')).toBeGreaterThan(5);
    await over('7', acts);
    const [made] = (await stored(id)).encounters;
    expect(made.alive.most).toBe(10);
    expect(made.waves[0]).toMatchObject({ repeat: { times: 5, pause: 5 }, groups: [{ rule: 'random', count: { min: 5, max: 12 } }] });
    expect(made.waves[0].groups[0].pool).toHaveLength(3);
    expect(made.waves.slice(1).map(({ share, groups }: any) => [share, groups.length, groups[0].target])).toEqual(
      Array.from({ length: 3 }, () => [0.8, 2, 'opponent']),
    );
  });

  test('8: a patrol notices within an angle, chases, strikes three times in a row, turns home and heals, and fights only when attacked', async () => {
    const { acts, page, id } = await begun(own, 'Patrol');
    await acts.enemy('patrols and chases', 'Watch');
    await acts.click(FIELDS, 'all fields');
    await acts.type(FIELDS, 'Sight angle', 90);
    await acts.choose(FIELDS, 'Manner', 'only when attacked');
    await acts.click(FIELDS, 'Add leash');
    await acts.attack('a wide sweep', 'Second');
    await acts.attack('a quick bite', 'Third');
    await acts.click(BEAT, 'Second');
    await acts.click(BEAT, 'all fields');
    await acts.click(BEAT, 'Add follow-up');
    await acts.choose(BEAT + ' ' + group('Follow-up'), 'Attack', 'Third');
    await acts.click(BEAT, 'Snap');
    await acts.click(BEAT, 'Add follow-up');
    expect(await figure(page, 'Time-to-kill')).toBeGreaterThan(1);
    await over('8', acts);
    const made = unitOf(await stored(id), 'Watch');
    expect(made).toMatchObject({ temper: { manner: 'retaliates' }, senses: { angle: 90 }, leash: { heals: true } });
    expect(made.attacks.map(({ next }: any) => next?.attack)).toEqual(['second', 'third', undefined]);
  });

  test('9: a gun turns at a rate, fires each second only with a line, a wall between them, and backs off and closes', async () => {
    const { acts, page, id } = await begun(own, 'Gun');
    await acts.enemy('rooted gun', 'Gun');
    await acts.type('main', 'Turn', 120);
    await acts.type('main', 'Walk', 2);
    await acts.type('main', 'Run', 3);
    await acts.type(BEAT, 'Wind-up', 0.3);
    await acts.type(BEAT, 'Cooldown, from its start', 1);
    await acts.choose(STATES, 'Does', 'keep a band');
    await acts.type(STATES, 'Keeps from', 5);
    await acts.type(STATES, 'Keeps to', 12);
    const open = await figure(page, 'Time-to-kill');
    await acts.click(READOUT, 'with others, from behind, over a wall …');
    await acts.click('.sheet', 'a wall between …');
    await acts.type('.sheet', 'Wall', 3);
    await acts.chord('Escape');
    // From behind it nobody sees anybody: the readout says so, and why.
    const unhurt = await page.waitForSelector(`${READOUT} [aria-label="Nobody was hurt"]`);
    expect(await unhurt!.evaluate((one) => one.textContent)).toMatch(/no enemy ever noticed anybody|no line/);
    expect(open).toBeGreaterThan(1);
    await over('9', acts);
    const made = unitOf(await stored(id), 'Gun');
    expect([made.movement.turnRate, made.attacks[0].beat.cooldown, made.attacks[0].needsLine, made.states[0].does]).toEqual([
      120,
      1,
      true,
      'band',
    ]);
  });

  test('10: three ranked opponents and two tiers, ranked by who wins; a trait that is more of health, a lethal weak point, a shield the trait leaves alone', async () => {
    const { acts, page, id } = await begun(own, 'Ranks');
    await acts.enemy('rushes and bites', 'Weak');
    await acts.enemy('slow, heavy, announced', 'Strong');
    await acts.click(FIELDS, 'all fields');
    await acts.click(FIELDS, 'Add weak point');
    await acts.tick(FIELDS, 'Kills outright');
    await acts.click(FIELDS, 'Add shield');
    await acts.enemy('boss of three conducts', 'Boss');
    await acts.section('Difficulty');
    for (const [name, factor] of [
      ['Mild', 0.8],
      ['Harsh', 1.4],
    ] as const) {
      await acts.click('aside[aria-label=Tiers]', 'New tier');
      await page.waitForSelector('.sheet form');
      acts.count++;
      await page.keyboard.sendCharacter(name);
      await acts.chord('Enter');
      await page.waitForSelector(group(name));
      if (name === 'Mild') {
        await acts.click('main', 'Change something else …');
        await acts.choose('.sheet[aria-label="Something else"]', 'What', 'Damage of all attacks');
        await page.waitForFunction(() => !document.querySelector('.sheet[aria-label="Something else"]'));
      }
      await acts.click('main table', `Change all enemies Damage of all attacks at ${name}`);
      await acts.type('main table', `all enemies Damage of all attacks at ${name}`, factor);
    }
    await acts.click('aside', 'Traits');
    await acts.click('aside[aria-label=Traits]', 'New trait');
    await page.waitForSelector('.sheet form');
    acts.count++;
    await page.keyboard.sendCharacter('Tough');
    await acts.chord('Enter');
    await page.waitForSelector(group('Tough'));
    await acts.type('main', 'Whoever has it 1: how much', 1.2);
    await acts.click('main, aside', 'Strong');
    await acts.encounter('one of each kind', 'All three');
    await acts.section('Board');
    await acts.board();
    await acts.condition('Ranked by');
    await acts.choose('.sheet', 'Measure 1', 'win share');
    await acts.chord('Escape');
    // The harsher tier is the harder one, and the boss the last to be beaten.
    await page.waitForFunction(() => document.querySelector('section[aria-label="Ranking check"] svg[role=img]'));
    const checked = await page.$eval('section[aria-label="Ranking check"]', (one) => one.textContent);
    expect(checked).toContain('win share');
    await over('10', acts);
    const kept = await stored(id);
    expect(kept.tiers.map(({ name }: any) => name)).toEqual(['Mild', 'Harsh']);
    expect(unitOf(kept, 'Strong')).toMatchObject({ weakPoint: { lethal: true }, shield: { max: 10 }, traits: ['tough'] });
  });

  test('all ten took forty actions at the median, and none more than sixty', () => {
    const all = Object.values(counts).sort((a, b) => a - b);
    expect(all).toHaveLength(10);
    expect([counts, (all[4] + all[5]) / 2 <= 40]).toEqual([counts, true]);
  });
});
