import { type Curve, type CurvePoint, type Encounter, type IntendedCurve, type Project, unitIn } from '@insidia/core';
import { NumberField } from '../../fields/NumberField';
import { ownAt, withoutCurve, withTolerance } from './intentions';
import { pointsFrom, type Strip } from './strips';

interface IntendedProps {
  project: Project;
  encounter: Encounter;
  current: Strip | undefined;
  intended: IntendedCurve | undefined;
  /** What the runs at the current strip came to. */
  median: Curve | undefined;
  onCurves: (name: string, how: (all: readonly IntendedCurve[]) => IntendedCurve[], mark?: string) => void;
  onPoints: (tier: string | undefined, points: CurvePoint[], what: string, mark?: string) => void;
}

/** What the pressure is meant to be at the chosen tier: how far it may lie away, from where it is taken, whose it is. */
export function Intended({ project, encounter, current, intended, median, onCurves, onPoints }: IntendedProps) {
  const tier = current?.cell.tier;
  return (
    <>
      <div className="section-head">
        <h3>What is intended</h3>
        <span className="note">
          {intended ? (intended.tier ? `at ${nameOf(project, intended.tier)}` : 'at every tier') : 'nothing yet'}
        </span>
      </div>
      <div className="mt-1 flex flex-wrap items-end gap-1.5">
        {intended && (
          <NumberField
            info={{
              label: 'Tolerance ±',
              unit: unitIn(encounter.clock, '%/s'),
              min: 0,
              max: 1000,
              about: 'how far the pressure may lie from the curve',
            }}
            base={Number((100 * intended.tolerance).toPrecision(6))}
            width={92}
            onCommit={(value, mark) => onCurves('tolerance', (all) => withTolerance(all, intended.id, value / 100), mark)}
          />
        )}
        {median && current && (
          <button type="button" className="btn" onClick={() => onPoints(current.cell.tier, pointsFrom(median), 'from the present median')}>
            From the present median
          </button>
        )}
        {intended && tier !== undefined && !intended.tier && (
          <button
            type="button"
            className="btn"
            onClick={() => onCurves(`a curve of its own at ${nameOf(project, tier)}`, (all) => ownAt(all, intended, tier))}
          >
            Its own at {nameOf(project, tier)}
          </button>
        )}
        {intended && (
          <button type="button" className="btn" onClick={() => onCurves('no intended curve', (all) => withoutCurve(all, intended.id))}>
            Take it away
          </button>
        )}
      </div>
    </>
  );
}

const nameOf = (project: Project, tier: string) => project.tiers.find(({ id }) => id === tier)?.name ?? tier;
