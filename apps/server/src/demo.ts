import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Project } from '@insidia/core';
import type { ProjectsService } from './projects/projects.service';

const LOADED = { label: 'Loaded the demo' };

const demo = () => JSON.parse(readFileSync(join(__dirname, '../../../demo/verdance.insidia.json'), 'utf8')) as Project;

/** An empty database begins with the demo, so that there is something to look at. */
export async function loadDemo(projects: ProjectsService): Promise<void> {
  if (await projects.isEmpty()) await projects.create(demo(), LOADED);
}

/** The demo once more, beside whatever has become of it. */
export const loadDemoAgain = (projects: ProjectsService, said: { author?: string; client?: string }) =>
  projects.createBeside(demo(), { ...LOADED, ...said });
