/**
 * npm run golden: writes demo/digests.json, the digests of twenty runs of each demo encounter at each tier. A test compares
 * them; the commit that changes one says why.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { ROOT, build, installModules, withSentences } from './system.mjs';

await withSentences(async () => {
  installModules();
  build();
  const { compile, parseProject, runBatch } = createRequire(import.meta.url)(join(ROOT, 'packages/core/dist/index.js'));
  const demo = parseProject(JSON.parse(readFileSync(join(ROOT, 'demo/verdance.insidia.json'), 'utf8')));
  const digests = demo.encounters.flatMap(({ id: encounter }) =>
    demo.tiers.map(({ id: tier }) => ({
      encounter,
      tier,
      digest: runBatch(compile(demo, { encounter, tier, skill: 'regular' }), 1, 20).digest,
    })),
  );
  writeFileSync(join(ROOT, 'demo/digests.json'), JSON.stringify(digests, null, 2) + '\n');
  console.log(`${digests.length} digests written`);
});
