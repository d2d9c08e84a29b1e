import {
  type Arena,
  type Corner,
  effectiveUnit,
  type Project,
  shown,
  SIGHT_RAYS,
  type SightRay,
  sightFrom,
  type Unit,
  unitHeads,
} from '@insidia/core';
import { useMemo } from 'react';
import type { planScale } from '../../visuals/plan';

type Plan = ReturnType<typeof planScale>;

/** What a unit standing at a place would see and reach. */
export function ArenaLooker({
  arena,
  project,
  looking,
  at,
  plan,
}: {
  arena: Arena;
  project: Project;
  looking: Unit;
  at: Corner;
  plan: Plan;
}) {
  const seen = useMemo(() => {
    const foes = unitHeads(project).filter(({ side }) => side !== looking.side);
    const heights = foes.map(({ id }) => effectiveUnit(project, id, {}).unit.body.height);
    return sightFrom(arena, at.x, at.y, looking.body.eyeHeight, Math.min(looking.senses.sight, 80), Math.min(...heights, 1.8) / 2);
  }, [arena, looking, at, project]);
  const colour = `var(--e-${looking.colour})`;
  return (
    <g pointerEvents="none">
      <path d={inView(seen, at, plan)} fill="var(--focus)" fillOpacity={0.2} />
      {looking.attacks.map(({ id, name, range }) => {
        const reach = (looking.body.radius + range.max) * plan.scale;
        return (
          <g key={id}>
            <circle cx={plan.x(at.x)} cy={plan.y(at.y)} r={reach} fill="none" stroke={colour} strokeDasharray="4 3" />
            <text x={plan.x(at.x)} y={plan.y(at.y) - reach - 3} textAnchor="middle" className="t3 halo-s">
              {name} {shown(range.max)}
            </text>
          </g>
        );
      })}
      <circle cx={plan.x(at.x)} cy={plan.y(at.y)} r={looking.body.radius * plan.scale} fill={colour} />
    </g>
  );
}

/** What is in view as thin wedges, one a ray and stretch. */
export function inView(rays: readonly SightRay[], from: Corner, plan: Pick<Plan, 'x' | 'y'>): string {
  const half = Math.PI / SIGHT_RAYS;
  const at = (angle: number, far: number) =>
    `${plan.x(from.x + Math.cos(angle) * far).toFixed(1)} ${plan.y(from.y + Math.sin(angle) * far).toFixed(1)}`;
  return rays
    .flatMap(({ angle, seen }) =>
      seen.map(
        ([near, far]) => `M${at(angle - half, near)} L${at(angle - half, far)} L${at(angle + half, far)} L${at(angle + half, near)}Z`,
      ),
    )
    .join('');
}
