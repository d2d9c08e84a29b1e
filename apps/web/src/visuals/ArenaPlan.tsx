import { type Arena, shown, roundUp } from '@insidia/core';
import type { ReactNode, SVGProps } from 'react';
import { type PlanScale, polygon, scaleBar } from './plan';
import { type PlanLabel, planLabels, pointRadius, spawnRadius } from './planLabels';
import { guarded } from '../parts/guarded';

interface Props {
  arena: Arena;
  width: number;
  height: number;
  plan: PlanScale;
  /** Height from which a wall counts as high: it blocks the eyes of everybody. */
  high?: number;
  label: string;
  /** Names of places are left out where they would only be in the way. */
  quiet?: boolean;
  /** Spawn points that are in use, by id. */
  used?: ReadonlySet<string>;
  onSpawnPoint?: (id: string) => void;
  children?: ReactNode;
  svg?: SVGProps<SVGSVGElement>;
}

/** An arena to scale from above: ground, walls and cover, zones, places, spawn points, where the party starts. */
export const ArenaPlan = guarded(
  'The arena’s plan',
  function ArenaPlan({ arena, width, height, plan, high = 1.6, label, quiet, used, onSpawnPoint, children, svg }: Props) {
    const { x, y, scale } = plan;
    const lines = gridLines(arena, scale);
    return (
      <svg width={width} height={height} role="group" aria-label={label} {...svg}>
        <rect
          x={x(-arena.width / 2)}
          y={y(arena.depth / 2)}
          width={arena.width * scale}
          height={arena.depth * scale}
          fill="var(--sheet)"
          stroke="var(--ink)"
          strokeWidth={2}
        />
        <g stroke="var(--hair)" strokeWidth={0.6}>
          {lines.x.map((at) => (
            <path key={`x${at}`} d={`M${x(at)} ${y(-arena.depth / 2)} V${y(arena.depth / 2)}`} />
          ))}
          {lines.y.map((at) => (
            <path key={`y${at}`} d={`M${x(-arena.width / 2)} ${y(at)} H${x(arena.width / 2)}`} />
          ))}
        </g>
        {arena.ground.map(({ id, kind, corners }) => (
          <path key={id} d={polygon(corners, plan)} fill="var(--stripe)" stroke="var(--ink-3)" strokeDasharray="1 3">
            <title>{kind}</title>
          </path>
        ))}
        {arena.zones.map(({ id, name, corners }) => (
          <path key={id} d={polygon(corners, plan)} fill="none" stroke="var(--ink-2)" strokeDasharray="6 4">
            <title>{name}</title>
          </path>
        ))}
        {arena.walls.map((wall) => (
          <path
            key={wall.id}
            d={polygon(wall.corners, plan)}
            fill={wall.height >= high ? 'var(--ink)' : 'var(--well)'}
            stroke="var(--ink)"
            strokeWidth={1.2}
          >
            <title>{`${wall.name}, ${shown(wall.height)} m high`}</title>
          </path>
        ))}
        {arena.points.map((point) => {
          const out = pointRadius(point.radius, plan);
          return (
            <rect
              key={point.id}
              x={x(point.x) - out}
              y={y(point.y) - out}
              width={2 * out}
              height={2 * out}
              fill={point.health === undefined ? 'none' : 'var(--well)'}
              stroke="var(--ink)"
              transform={`rotate(45 ${x(point.x)} ${y(point.y)})`}
            >
              <title>{point.name}</title>
            </rect>
          );
        })}
        {arena.spawnPoints.map((point) => {
          const on = used?.has(point.id);
          return (
            <g
              key={point.id}
              {...(onSpawnPoint && {
                role: 'button',
                tabIndex: 0,
                'aria-label': `Spawn point ${point.name}`,
                'aria-pressed': on ?? false,
                onClick: () => onSpawnPoint(point.id),
                onKeyDown: (event: { key: string; preventDefault: () => void }) => {
                  if (event.key !== 'Enter' && event.key !== ' ') return;
                  event.preventDefault();
                  onSpawnPoint(point.id);
                },
                style: { cursor: 'pointer' },
              })}
            >
              <title>{point.name}</title>
              <circle
                cx={x(point.x)}
                cy={y(point.y)}
                r={spawnRadius(point.scatter, plan)}
                fill={on ? 'var(--well)' : 'var(--sheet)'}
                fillOpacity={on ? 0.9 : 0.01}
                stroke="var(--ink)"
                strokeWidth={on ? 1.6 : 1}
                strokeDasharray={on ? undefined : '3 3'}
              />
              <path d={`M${x(point.x) - 3} ${y(point.y)} h6 M${x(point.x)} ${y(point.y) - 3} v6`} stroke="var(--ink)" strokeWidth={1.6} />
            </g>
          );
        })}
        {!quiet && <Names labels={planLabels(arena, plan, width, height, used)} />}
        {children}
        <ScaleBar arena={arena} plan={plan} />
      </svg>
    );
  },
);

function Names({ labels }: { labels: readonly PlanLabel[] }) {
  return (
    <g pointerEvents="none">
      {labels.map(({ key, words, className, x, y, anchor }) => (
        <text key={key} x={x} y={y} textAnchor={anchor} className={className}>
          {words}
        </text>
      ))}
    </g>
  );
}

function gridLines({ width, depth }: Arena, scale: number): { x: number[]; y: number[] } {
  const step = roundUp(24 / scale);
  const within = (half: number) => {
    const found: number[] = [];
    for (let i = Math.ceil(-half / step); i * step <= half; i++) found.push(i * step);
    return found;
  };
  return { x: within(width / 2), y: within(depth / 2) };
}

function ScaleBar({ arena, plan }: { arena: Arena; plan: PlanScale }) {
  const { metres, left, right, y } = scaleBar(arena, plan);
  return (
    <g pointerEvents="none">
      <path d={`M${left} ${y} H${right} M${left} ${y - 3} v6 M${right} ${y - 3} v6`} stroke="var(--ink)" fill="none" />
      <text x={(left + right) / 2} y={y - 5} textAnchor="middle" className="t2 halo-s">
        {shown(metres)} m
      </text>
    </g>
  );
}
