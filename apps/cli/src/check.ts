import { type JudgedGoal, type Project, type Warning, acceptanceOf, goalName, goalSentence, inspectAll, isMissed } from '@insidia/core';
import { create } from 'xmlbuilder2';
import { type BriefOptions, judgeBrief } from './brief';

export interface CheckOptions extends Partial<BriefOptions> {
  strict?: boolean;
  format: 'text' | 'json' | 'junit';
}

const LISTS = ['units', 'variants', 'arenas', 'encounters', 'tiers', 'skills', 'styles'] as const;

interface Found {
  project: Project;
  warnings: { warning: Warning; accepted?: string }[];
  /** Undefined: the brief was not judged. */
  goals?: JudgedGoal[];
}

export interface Checked {
  text: string;
  /** Open problems by inspection. */
  problems: number;
  /** Goals of the brief that are missed. */
  missed: number;
}

/** What inspection finds in a valid document, and with runs what the brief comes to. */
export function check(project: Project, options: CheckOptions, report: (text: string) => void): Checked {
  const warnings = inspectAll(project).map((warning) => ({ warning, accepted: acceptanceOf(project, warning)?.reason }));
  const { runs, tier, skill, format } = options;
  const found: Found = { project, warnings, ...(runs !== undefined && { goals: judgeBrief(project, { runs, tier, skill }, report) }) };
  return {
    text: { text: asText, json: asJson, junit: asJunit }[format](found),
    problems: warnings.filter(({ warning, accepted }) => warning.severity === 'problem' && accepted === undefined).length,
    missed: found.goals?.filter(isMissed).length ?? 0,
  };
}

function asText({ project, warnings, goals }: Found): string {
  const counts = LISTS.map((list) => `${project[list].length} ${list}`);
  const lines = [
    `${project.name} is valid: ${counts.join(', ')}`,
    ...warnings.map(({ warning, accepted }) => lineOf(warning, accepted)),
    ...(goals ?? []).map((goal) => `goal: ${goalName(project, goal)}: ${goalSentence(goal)}`),
  ];
  if (goals) {
    const count = (verdict: string) => goals.filter((goal) => goal.verdict.startsWith(verdict)).length;
    lines.push(`brief: ${count('met')} of ${goals.length} goals met, ${count('missed')} missed, ${count('undecided')} undecided`);
  } else if (project.brief?.bands.length)
    lines.push(`brief: ${project.brief.bands.length} bands, not judged; say how many runs with --runs`);
  return lines.join('\n') + '\n';
}

function lineOf({ severity, rule, path, message, mend }: Warning, accepted: string | undefined): string {
  const head = accepted === undefined ? severity : `accepted ${severity}`;
  const tail = accepted === undefined ? mend : `accepted: ${accepted}`;
  return `${head}: ${path} ${message}; ${tail} (${rule})`;
}

/** JSON has no infinity: a survivor's time is written as text. */
const plain = (value: number) => (Number.isFinite(value) ? value : Number.isNaN(value) ? null : value > 0 ? 'Infinity' : '-Infinity');

function asJson({ project, warnings, goals }: Found): string {
  const list = warnings.map(({ warning: { rule, severity, path, message, mend }, accepted }) => ({
    rule,
    severity,
    path,
    message,
    mend,
    ...(accepted !== undefined && { accepted }),
  }));
  const judged = goals?.map((goal) => {
    const { band, cell, of, runs, verdict, judgement } = goal;
    const estimate = judgement?.estimate;
    return {
      band: band.id,
      name: goalName(project, goal),
      measure: band.measure,
      statistic: band.statistic,
      of,
      by: cell.kind,
      ...(cell.kind === 'encounter' && { encounter: cell.id }),
      tier: cell.tier,
      skill: cell.skill,
      runs,
      ...(estimate && { value: plain(estimate.value), low: plain(estimate.low), high: plain(estimate.high) }),
      wanted: { low: band.low, high: band.high },
      verdict,
      ...(judgement?.more && { moreRuns: judgement.more }),
    };
  });
  return JSON.stringify({ project: project.id, warnings: list, ...(judged && { brief: judged }) }, null, 2) + '\n';
}

/** JUnit XML: a suite for inspection and one for the brief; what is accepted or undecided counts as skipped. */
function asJunit({ project, warnings, goals = [] }: Found): string {
  const open = warnings.filter(({ warning, accepted }) => warning.severity === 'problem' && accepted === undefined);
  const accepted = warnings.filter((one) => one.accepted !== undefined);
  const missed = goals.filter(isMissed);
  const undecided = goals.filter(({ verdict }) => verdict === 'undecided');
  const root = create({ version: '1.0', encoding: 'UTF-8', invalidCharReplacement: '\uFFFD' }).ele('testsuites', {
    name: project.name,
    tests: warnings.length + goals.length,
    failures: open.length + missed.length,
  });
  const inspection = root.ele('testsuite', { name: 'inspection', tests: warnings.length, failures: open.length, skipped: accepted.length });
  for (const { warning, accepted: reason } of warnings) {
    const one = inspection.ele('testcase', { classname: warning.rule, name: `${warning.path} ${warning.message}` });
    if (reason !== undefined) one.ele('skipped', { message: reason });
    else if (warning.severity === 'problem') one.ele('failure', { message: warning.message, type: warning.rule }).txt(warning.mend);
    else one.ele('system-out').txt(warning.mend);
  }
  const brief = root.ele('testsuite', { name: 'brief', tests: goals.length, failures: missed.length, skipped: undecided.length });
  for (const goal of goals) {
    const one = brief.ele('testcase', { classname: goal.band.measure, name: goalName(project, goal) });
    if (isMissed(goal)) one.ele('failure', { message: goalSentence(goal), type: goal.verdict });
    else if (goal.verdict === 'undecided') one.ele('skipped', { message: goalSentence(goal) });
    else one.ele('system-out').txt(goalSentence(goal));
  }
  return root.end({ prettyPrint: true }) + '\n';
}
