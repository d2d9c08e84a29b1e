import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Project } from '@insidia/core';
import type { ProjectsService } from './projects/projects.service';

const LOADED = { label: 'Loaded the demo' };

/** The demos by what they are asked for as: the station goes by seconds and metres, its archive by turns. */
const FILES = { station: 'verdance', archive: 'archive' } as const;
export type Demo = keyof typeof FILES;
export const DEMOS = Object.keys(FILES) as Demo[];

const read = (of: Demo) => JSON.parse(readFileSync(join(__dirname, `../../../demo/${FILES[of]}.insidia.json`), 'utf8')) as Project;

/** An empty database begins with the demos, so that there is something to look at. */
export async function loadDemo(projects: ProjectsService): Promise<void> {
  if (!(await projects.isEmpty())) return;
  for (const of of DEMOS) await projects.create(read(of), LOADED);
}

/** A demo once more, beside whatever has become of it. */
export const loadDemoAgain = (projects: ProjectsService, of: Demo, said: { author?: string; client?: string }) =>
  projects.createBeside(read(of), { ...LOADED, ...said });
