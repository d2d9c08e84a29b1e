/** JUnit XML, as build servers read it. */
import { create } from 'xmlbuilder2';

export interface JunitCase {
  classname: string;
  name: string;
  message: string;
  outcome: 'passed' | 'failed' | 'skipped';
  /** What kind of failure; absent: as the message says. */
  type?: string;
}

/** One suite of cases. */
export function junit(name: string, suiteName: string, cases: readonly JunitCase[]): string {
  const count = (outcome: JunitCase['outcome']) => cases.filter((one) => one.outcome === outcome).length;
  const failures = count('failed');
  const root = create({ version: '1.0', encoding: 'UTF-8', invalidCharReplacement: '\uFFFD' }).ele('testsuites', {
    name,
    tests: cases.length,
    failures,
  });
  const suite = root.ele('testsuite', { name: suiteName, tests: cases.length, failures, skipped: count('skipped') });
  for (const { classname, name: of, message, outcome, type = 'missed' } of cases) {
    const one = suite.ele('testcase', { classname, name: of });
    if (outcome === 'failed') one.ele('failure', { message, type });
    else if (outcome === 'skipped') one.ele('skipped', { message });
    else one.ele('system-out').txt(message);
  }
  return root.end({ prettyPrint: true }) + '\n';
}
