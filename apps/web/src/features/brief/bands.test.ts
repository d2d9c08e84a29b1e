import { describe, expect, test } from '@jest/globals';
import { BAND_MEASURES, type Band, GOAL_MEASURES, type Project, SUBJECT_OF, goalsOf, parseProject, scenarioKey } from '@insidia/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { bandAbout } from '../../fields/bandAbout';
import {
  aboutOf,
  aboutOffers,
  askedOf,
  bandsCopied,
  markedWith,
  measuresIn,
  nextMissed,
  statisticsOf,
  withAbout,
  withMeasure,
} from './bands';

const demo = (): Project => parseProject(JSON.parse(readFileSync(join(__dirname, '../../../../../demo/verdance.insidia.json'), 'utf8')));
const band = (more: Partial<Band> = {}): Band => ({
  id: 'a',
  measure: 'timeToKill',
  scope: 'enemies',
  statistic: 'median',
  high: 9,
  ...more,
});

describe('whom a band speaks of', () => {
  test('each offer, chosen, is the one that is shown again, for every measure', () => {
    const project = demo();
    for (const measure of BAND_MEASURES)
      for (const { id } of aboutOffers(project, measure)) {
        const chosen = withAbout(band({ measure }), id);
        expect(aboutOf(chosen)).toBe(id);
        expect(GOAL_MEASURES[measure].of).toContain(SUBJECT_OF[chosen.scope]);
      }
  });

  test('every demo band is one of the offers of its measure', () => {
    const project = demo();
    for (const one of project.brief!.bands) expect(aboutOffers(project, one.measure).map(({ id }) => id)).toContain(aboutOf(one));
  });

  test('the encounter that an enemy is measured in is kept between enemies, and dropped for encounters', () => {
    const inside = band({ scope: 'role', of: 'boss', encounter: 'the-head-gardener' });
    expect(withAbout(inside, 'unit head-gardener')).toMatchObject({ scope: 'unit', of: 'head-gardener', encounter: 'the-head-gardener' });
    expect(withAbout(inside, 'encounters')).not.toHaveProperty('encounter');
    expect(withAbout(band({ scope: 'wave', encounter: 'evening-shift', of: 'two' }), 'enemies')).not.toHaveProperty('encounter');
    expect(withAbout(band(), 'role quick and small')).toMatchObject({ scope: 'role', of: 'quick and small' });
  });

  test('nothing else of it changes', () => {
    const full = band({ tier: 'bloom', skill: 'regular', why: 'because', low: 2 });
    const { scope: _, of: __, ...rest } = withAbout(full, 'role swarm');
    const { scope: ___, ...before } = full;
    expect(rest).toEqual(before);
  });
});

describe('another measure', () => {
  test('what is yes or no is told as a share, and what is not is no share', () => {
    const project = demo();
    expect(withMeasure(project, band(), 'won')).toMatchObject({ measure: 'won', statistic: 'share', scope: 'enemies' });
    expect(withMeasure(project, band({ measure: 'won', statistic: 'share' }), 'dose')).toMatchObject({ statistic: 'mean' });
    expect(withMeasure(project, band({ statistic: 'p90' }), 'lifetime').statistic).toBe('p90');
  });
  test('it speaks of somebody that the measure is of', () => {
    const project = demo();
    expect(withMeasure(project, band({ scope: 'role', of: 'swarm' }), 'overlap')).toMatchObject({
      scope: 'wave',
      encounter: expect.any(String),
    });
    expect(withMeasure(project, band({ scope: 'encounter', of: 'first-bell' }), 'timeToKill')).toMatchObject({ scope: 'enemies' });
    expect(withMeasure(project, band({ scope: 'encounter', of: 'first-bell' }), 'raised')).toMatchObject({
      scope: 'encounter',
      of: 'first-bell',
    });
  });
  test('statistics that fit', () => {
    expect(statisticsOf('won')).toEqual(['share']);
    expect(statisticsOf('length')).toEqual(['median', 'mean', 'p10', 'p90']);
  });
  test('measures of a brief in their own order, with how many bands', () => {
    expect(measuresIn([band({ measure: 'won' }), band(), band({ measure: 'won' })])).toEqual([
      { measure: 'timeToKill', count: 1 },
      { measure: 'won', count: 2 },
    ]);
    expect(measuresIn([])).toEqual([]);
  });
});

describe('a band to begin with', () => {
  test('a fifth about the values; about shares a tenth, within 0 to 1', () => {
    expect(bandAbout('timeToKill', [5, 10])).toEqual({ low: 4, high: 12 });
    expect(bandAbout('timeToKill', [5], 0.5)).toEqual({ low: 2.5, high: 7.5 });
    expect(bandAbout('won', [0.55])).toEqual({ low: 0.45, high: 0.65 });
    expect(bandAbout('won', [0.98])).toEqual({ low: 0.88, high: 1 });
    expect(bandAbout('won', [0.03]).low).toBe(0);
  });
  test('about nothing at all there is only a limit above', () => {
    expect(bandAbout('overlap', [0])).toEqual({ high: 1 });
    expect(bandAbout('peakPressureShare', [0])).toEqual({ high: 0.01 });
  });
});

describe('several at once', () => {
  const all = ['a', 'b', 'c', 'd'].map((id) => band({ id, tier: 'bloom' }));

  test('copies stand at the end under ids of their own, for another tier where one is named; the rest is untouched', () => {
    const { bands, copies } = bandsCopied(all, [all[1], all[3]], 'blight');
    expect(bands.slice(0, 4)).toEqual(all);
    expect(bands.slice(4)).toEqual(copies);
    expect(copies.map(({ id, tier }) => [id, tier])).toEqual([
      ['b-2', 'blight'],
      ['d-2', 'blight'],
    ]);
    const again = bandsCopied(bands, [copies[0]]).copies[0];
    expect([again.id, again.tier]).toEqual(['b-3', 'blight']);
    expect(new Set(bandsCopied(all, [all[0], all[0]]).bands.map(({ id }) => id)).size).toBe(6);
  });

  test('marks one, or everything from the chosen one to it, whichever way; and takes them off alike', () => {
    const marks = (marked: string[], next: Parameters<typeof markedWith>[2]) => [...markedWith(all, new Set(marked), next)].sort();
    expect(marks(['a'], { id: 'c', on: true })).toEqual(['a', 'c']);
    expect(marks([], { id: 'b', on: true, from: 'd' })).toEqual(['b', 'c', 'd']);
    expect(marks([], { id: 'd', on: true, from: 'b' })).toEqual(['b', 'c', 'd']);
    expect(marks(['a', 'b', 'c'], { id: 'c', on: false, from: 'b' })).toEqual(['a']);
    expect(marks([], { id: 'c', on: true, from: 'gone' })).toEqual(['c']);
  });
});

describe('goals that are missed', () => {
  test('come one after another, round and round; a goal is missed where one of its cells is', () => {
    const all = ['a', 'b', 'c'].map((id) => band({ id }));
    const judged = (id: string, verdict: string, known = true) =>
      ({ band: band({ id }), verdict, ...(known && { judgement: {} }) }) as never;
    const list = [judged('a', 'missedLow'), judged('b', 'met'), judged('c', 'met'), judged('c', 'missedHigh')];
    expect([null, 'a', 'b', 'c', 'gone'].map((now) => nextMissed(all, list, now))).toEqual(['a', 'c', 'c', 'a', 'a']);
    expect(nextMissed(all, [judged('a', 'missedLow', false), judged('b', 'undecided')], null)).toBeUndefined();
  });

  test('are judged by what their cells are asked, each cell once', () => {
    const project = demo();
    const goals = goalsOf(project);
    const asked = askedOf(goals);
    expect(new Set(asked.map(({ cell }) => cell)).size).toBe(asked.length);
    for (const { cell, column } of goals) expect(asked.find((one) => one.cell === scenarioKey(cell))!.columns).toContain(column);
  });
});
