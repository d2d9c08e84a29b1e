import { describe, expect, test } from '@jest/globals';
import { demoProject } from '../testing/demo';
import { inspectAll } from '../analysis/inspection/inspect';
import { usesOf, withFittingReferences, without } from './references';
import { between, placesOfTweaks } from './tiers';
import type { Setting, Tweak } from './tweak';
import { parseProject } from './validate';

const tier = (id: string, tweaks: Tweak[]): Setting => ({ id, name: id, tweaks });
const health = (value: number, more: Partial<Tweak> = {}): Tweak => ({ scope: 'enemies', path: '/health/max', op: '×', value, ...more });

describe('tiers as a table', () => {
  test('a row for each number, what holds for all before the exceptions', () => {
    const places = placesOfTweaks(demoProject().tiers).map(({ scope, of, path }) => [scope, of, path].filter(Boolean).join(' '));
    expect(new Set(places).size).toBe(places.length);
    expect(places.slice(0, 3)).toEqual([
      'enemies /health/max',
      'enemies /attacks/*/effects/damage/amount',
      'enemies /senses/reaction/mean',
    ]);
    expect(places.indexOf('role boss /health/max')).toBeLessThan(places.indexOf('unit briar-hound /senses/sight'));
  });

  test('between two: factors by ratio, sums and set values by difference, what is left alone as × 1 or + 0', () => {
    const a = tier('a', [health(1.25), { ...health(4), op: '=', path: '/body/radius' }, { ...health(2), op: '+', path: '/armour/flat' }]);
    const b = tier('b', [health(1.8, { max: 90 }), { ...health(6), op: '=', path: '/body/radius' }]);
    expect(between(a, b, 0.5)).toEqual([
      { ...health(1.5), max: 90 },
      { ...health(5), op: '=', path: '/body/radius' },
      { ...health(1), op: '+', path: '/armour/flat' },
    ]);
    expect(between(a, b, 0)).toEqual(a.tweaks);
    expect(between(a, tier('none', []), 1)[0].value).toBe(1);
  });

  test('a tier is taken out with what the brief says of it; the rest stays valid', () => {
    const before = demoProject().brief!.bands.length;
    const project = without(demoProject(), { kind: 'tier', id: 'blight' });
    expect(project.brief!.bands.length).toBeLessThan(before);
    expect(project.brief!.bands.every(({ tier: own }) => own !== 'blight')).toBe(true);
    expect(parseProject(project).tiers).toHaveLength(3);
  });

  test('goals and curves go with an encounter, a wave or a unit that is taken out; what they do not speak of stays', () => {
    const project = demoProject();
    project.brief!.curves = [{ id: 'curve', encounter: 'evening-shift', tolerance: 0.01, points: [] }];
    project.brief!.bands.push({ id: 'one', measure: 'timeToKill', scope: 'unit', of: 'mulcher', statistic: 'median', low: 1 });
    const evening = ({ of, encounter }: { of?: string; encounter?: string }) => of === 'evening-shift' || encounter === 'evening-shift';
    const left = without(project, { kind: 'encounter', id: 'evening-shift' });
    expect(left.brief!.curves).toEqual([]);
    expect(left.brief!.bands).toEqual(project.brief!.bands.filter((band) => !evening(band)));
    expect(() => parseProject(left)).not.toThrow();
    const waveless = structuredClone(project);
    waveless.encounters.find(({ id }) => id === 'evening-shift')!.waves.splice(1, 1);
    expect(withFittingReferences(waveless).brief!.bands.some(({ scope }) => scope === 'wave')).toBe(false);
    expect(usesOf(project, { kind: 'unit', id: 'mulcher' }).map(({ where }) => where)).toContain('Brief › time-to-kill: Which');
    expect(without(project, { kind: 'unit', id: 'mulcher' }).brief!.bands.some(({ id }) => id === 'one')).toBe(false);
    expect(withFittingReferences(project)).toBe(project);
  });
});

describe('warnings of tiers', () => {
  const rules = (change: (project: ReturnType<typeof demoProject>) => void) => {
    const project = demoProject();
    change(project);
    return inspectAll(project);
  };
  test('two tiers that come out the same', () => {
    const found = rules((project) => void project.tiers.push({ ...project.tiers[3], id: 'blight-again', name: 'Blight again' }));
    expect(found).toContainEqual(expect.objectContaining({ rule: 'tiersAlike', path: '/tiers/blight-again', severity: 'problem' }));
    expect(rules(() => undefined).some(({ rule }) => rule === 'tiersAlike')).toBe(false);
  });
  test('a factor that goes up and down again over the tiers: the Hound’s health at Bramble', () => {
    const found = rules(() => undefined).filter(({ rule }) => rule === 'tweakOutOfOrder');
    expect(found.map(({ path }) => path)).toContain('/tiers/bramble/tweaks/5');
    expect(found.every(({ path }) => path.startsWith('/tiers/bramble/'))).toBe(true);
    const ordered = rules((project) => (project.tiers[2].tweaks = project.tiers[2].tweaks.filter(({ scope }) => scope !== 'unit')));
    expect(ordered.some(({ rule }) => rule === 'tweakOutOfOrder')).toBe(false);
  });
});
