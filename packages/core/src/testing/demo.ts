import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Project } from '../model/project';
import { parseProject } from '../model/validate';

const text = readFileSync(join(__dirname, '../../../../demo/verdance.insidia.json'), 'utf8');

/** A fresh copy of the demo, to be changed as a test likes. */
export function demoProject(): Project {
  return structuredClone(parsed);
}

const parsed = parseProject(JSON.parse(text));
