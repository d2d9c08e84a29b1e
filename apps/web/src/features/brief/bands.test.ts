import { describe, expect, test } from '@jest/globals';
import { BAND_MEASURES, type Band, GOAL_MEASURES, type Project, SUBJECT_OF, parseProject } from '@insidia/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { bandAbout } from '../../fields/bandAbout';
import { aboutOf, aboutOffers, measuresIn, statisticsOf, withAbout, withMeasure } from './bands';

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
