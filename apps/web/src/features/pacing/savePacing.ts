import {
  CURVE_ABOUT,
  type CurveName,
  type Encounter,
  type PacingPictureOptions,
  type Project,
  csvRow,
  escaped,
  pacingPicture,
  svgAt,
} from '@insidia/core';
import { unparse } from 'papaparse';
import type { CellCurve } from '../../server/useCurves';
import { saveFile } from '../../parts/saveFile';
import { pngOf } from '../../visuals/png';
import type { Strip } from './strips';

/** Every bin of every strip as a line. */
export function savePacingCsv(
  project: Project,
  encounter: Encounter,
  of: CurveName,
  strips: readonly Strip[],
  curves: ReadonlyMap<string, CellCurve> | null,
): void {
  const lines = strips.flatMap(({ name, key }) => {
    const curve = curves?.get(key)?.curve;
    return (curve?.times ?? []).flatMap((time, bin) =>
      curve?.median[bin] === undefined
        ? []
        : [
            {
              encounter: encounter.name,
              of: name,
              measure: CURVE_ABOUT[of].label,
              time,
              going: curve.going[bin],
              p10: curve.p10[bin],
              p25: curve.p25[bin],
              median: curve.median[bin],
              p75: curve.p75[bin],
              p90: curve.p90[bin],
            },
          ],
    );
  });
  saveFile(`${project.id}-${encounter.id}-${of}.csv`, unparse(lines.map(csvRow)), 'text/csv');
}

const TITLE = 22;

/** All strips beneath one another as a picture. */
export async function savePacingPng(
  project: Project,
  encounter: Encounter,
  of: CurveName,
  strips: readonly { name: string; picture: PacingPictureOptions }[],
): Promise<void> {
  const [first] = strips;
  if (!first) return;
  const { width, height } = first.picture;
  const parts = strips.map(({ name, picture }, i) => {
    const top = i * (height + TITLE);
    const title = `<text x="4" y="${top + 15}" class="tb">${escaped(`${name}: ${CURVE_ABOUT[of].label}, ${CURVE_ABOUT[of].unit}`)}</text>`;
    return title + svgAt(0, top + TITLE, pacingPicture({ ...picture, named: true }));
  });
  const tall = strips.length * (height + TITLE);
  const svg = `<rect width="${width}" height="${tall}" fill="var(--paper)"/>${parts.join('')}`;
  saveFile(`${project.id}-${encounter.id}-${of}.png`, await pngOf({ svg, width, height: tall }));
}
