import { describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { CellRuns } from '../analysis/board';
import { scenarioOf } from '../analysis/scenario';
import { compileScenario } from '../analysis/compile-scenario';
import { Batch } from '../analysis/batch';
import { Curves } from '../measures/curves';
import { sampleOf } from '../measures/sample';
import type { Project } from '../model/project';
import { archiveProject, demoProject } from '../testing/demo';
import { REPORT_FONTS } from './report-style';
import { type ReportCurves, report, reportCells, reportCurves, usualSkill } from './report';
import { REPORT_TOKENS } from './report-style';

/** One encounter, two enemies, one goal that can't be met, and a name that is no HTML. */
function small(): Project {
  const project = demoProject();
  project.name = 'Verdance <b>& "Station"</b>';
  project.tiers = project.tiers.filter(({ id }) => id === 'bloom' || id === 'blight');
  project.encounters = project.encounters.filter(({ id }) => id === 'first-bell');
  project.units = project.units.filter(({ id, side }) => side === 'party' || id === 'clipper');
  project.variants = [];
  // Tough enough to bite.
  project.units.find(({ id }) => id === 'clipper')!.health.max = 200;
  project.brief = {
    bands: [
      {
        id: 'impossible',
        measure: 'timeToKill',
        scope: 'unit',
        of: 'clipper',
        tier: 'bloom',
        skill: 'regular',
        statistic: 'median',
        high: 0.1,
        why: 'nobody dies <at once>',
      },
    ],
    curves: [
      {
        id: 'curve',
        encounter: 'first-bell',
        tolerance: 0.5,
        points: [
          { at: 0, value: 0.1 },
          { at: 60, value: 0.1 },
        ],
      },
    ],
  };
  return project;
}

function run(project: Project, runs: number, lens: { skill?: string } = { skill: 'regular' }) {
  const read = new Map<string, CellRuns>();
  const curves = new Map<string, ReportCurves>();
  const drawn = new Set(reportCurves(project, lens));
  for (const { cell, columns } of reportCells(project, lens)) {
    const compiled = compileScenario(project, scenarioOf(cell));
    const own = new Curves(compiled);
    const batch = new Batch(compiled, 1, runs, own.watch, (one) => own.add(one));
    batch.advance(runs);
    const sample = sampleOf(compiled, batch.rows);
    read.set(cell, { runs, values: Object.fromEntries(columns.map((name) => [name, Array.from(sample.columns[name] ?? [])])) });
    if (drawn.has(cell)) curves.set(cell, { pressure: own.curve('pressure'), quiet: own.curve('quiet') });
  }
  return report({ project, lens, read, curves, at: '2026-01-02' });
}

describe('the report', () => {
  const html = run(small(), 20);

  test('says what is missed, by how much and why, with every text made safe', () => {
    expect(html).toContain('0 of 1 goals met, 1 missed, 0 undecided');
    expect(html).toMatch(
      /Clipper, Bloom, regular<\/b>: time-to-kill median [\d.]+ s \([\d.]+ to [\d.]+\), wanted at most 0\.1: missed high/,
    );
    expect(html).toContain('nobody dies &lt;at once&gt;');
    expect(html).toContain('<h1>Verdance &lt;b&gt;&amp; &quot;Station&quot;&lt;/b&gt;</h1>');
    expect(html).not.toContain('<at once>');
  });

  test('has the board, the pacing of each tier with the share inside, and how it was made', () => {
    expect(html).toContain('20 runs a cell');
    expect(html).toContain('Pacing of First Bell');
    expect(html.match(/% of the time within what is intended/g)).toHaveLength(2);
    expect(html).toContain('the median of all runs peaks with');
    expect(html).toMatch(/engine \d/);
  });

  test('needs no network: it names no address, no script and no file', () => {
    expect(html).not.toMatch(/<script|<link|<img|@import|url\(|https?:/);
  });

  test('brings its typefaces with it, where their files are handed to it', () => {
    const asked: string[] = [];
    const font = (file: string) => (asked.push(file), `${asked.length}AB=`);
    const own = report({ project: small(), lens: {}, read: new Map(), curves: new Map(), at: '2026-01-02', font });
    expect(asked).toEqual(REPORT_FONTS.map(({ file }) => file));
    REPORT_FONTS.forEach(({ family }, i) => {
      expect(own).toContain(`font-family:'${family}'`);
      expect(own).toContain(`url(data:font/woff2;base64,${i + 1}AB=)`);
    });
    expect(own).not.toMatch(/url\((?!data:)|https?:/);
    expect(html).not.toContain('@font-face');
  });

  test('every element that is opened is closed', () => {
    const open: string[] = [];
    for (const [, close, tag, self] of html.replace(/<!doctype html>|<meta[^>]*>/g, '').matchAll(/<(\/?)([a-z0-9]+)[^>]*?(\/?)>/g)) {
      if (self) continue;
      if (!close) open.push(tag);
      else expect(open.pop()).toBe(tag);
    }
    expect(open).toEqual([]);
  });

  test('of fights in turns it speaks of rounds and cells throughout', () => {
    const own = archiveProject();
    own.brief!.bands.push({ id: 'quick', measure: 'timeToKill', scope: 'unit', of: 'lamp-snail', statistic: 'median', high: 1 });
    const turned = run(own, 5, {});
    expect(turned).toContain('<td>rounds-to-kill</td>');
    expect(turned).not.toMatch(/time-to-kill|time to kill|seconds|\d s\b|\d m\b|; s;/i);
  });

  test('before anything is run it says so, for each board and each encounter', () => {
    const bare = report({ project: small(), lens: { skill: 'regular' }, read: new Map(), curves: new Map(), at: '2026-01-02' });
    expect(bare).toContain('0 of 1 goals met, 0 missed, 0 undecided, 1 not run');
    expect(bare).toContain('No goal has been run');
    expect(bare).not.toContain('is missed');
    expect(bare).toContain('Pacing of First Bell <small>not run</small>');
  });
});

test('it looks through the skill that most goals speak of', () => {
  expect(usualSkill(demoProject())).toBe('regular');
  expect(usualSkill({ ...demoProject(), brief: undefined })).toBe(demoProject().skills[0].id);
  expect(usualSkill({ ...demoProject(), skills: [] })).toBeUndefined();
});

test('its colours are those of the page', () => {
  const css = readFileSync(join(__dirname, '../../../../apps/web/src/styles/tokens.css'), 'utf8');
  const light = css.slice(css.indexOf(':root {'), css.indexOf('}', css.indexOf(':root {')));
  for (const [name, value] of Object.entries(REPORT_TOKENS)) expect(light).toContain(`--${name}: ${value};`);
});
