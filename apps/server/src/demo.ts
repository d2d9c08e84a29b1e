import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { ProjectsService } from './projects/projects.service';

/** An empty database begins with the demo, so that there is something to look at. */
export async function loadDemo(projects: ProjectsService): Promise<void> {
  if (!(await projects.isEmpty())) return;
  await projects.create(JSON.parse(readFileSync(join(__dirname, '../../../demo/verdance.insidia.json'), 'utf8')), {
    label: 'Loaded the demo',
  });
}
