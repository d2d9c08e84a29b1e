import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Project } from '../model/project';
import { parseProject } from '../model/validate';

/** A fresh copy of a demo each time it is asked for, to be changed as a test likes. */
function copies(name: string): () => Project {
  let parsed: Project | undefined;
  return () => structuredClone((parsed ??= parseProject(JSON.parse(readFileSync(join(__dirname, '../../../../demo', name), 'utf8')))));
}

/** Verdance Station. */
export const demoProject = copies('verdance.insidia.json');
/** Its Seed Archive, whose fights take turns. */
export const archiveProject = copies('archive.insidia.json');
