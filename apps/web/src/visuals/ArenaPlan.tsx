import { type Arena, shown, roundUp } from '@insidia/core';
import type { ReactNode, SVGProps } from 'react';
import { type PlanScale, middleOf, polygon } from './plan';
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
          <g key={id}>
            <path d={polygon(corners, plan)} fill="var(--stripe)" stroke="var(--ink-3)" strokeDasharray="1 3" />
            {!quiet && (
              <text x={x(middleOf(corners).x)} y={y(middleOf(corners).y) + 4} textAnchor="middle" className="t3">
                {kind}
              </text>
            )}
          </g>
        ))}
        {arena.zones.map(({ id, name, corners }) => (
          <g key={id}>
            <path d={polygon(corners, plan)} fill="none" stroke="var(--ink-2)" strokeDasharray="6 4" />
            {!quiet && (
              <text
                x={x(middleOf(corners).x)}
                y={y(Math.max(...corners.map((corner) => corner.y))) + 12}
                textAnchor="middle"
                className="t3 halo-s"
              >
                {name}
              </text>
            )}
          </g>
        ))}
        {arena.walls.map((wall) => (
          <g key={wall.id}>
            <path
              d={polygon(wall.corners, plan)}
              fill={wall.height >= high ? 'var(--ink)' : 'var(--well)'}
              stroke="var(--ink)"
              strokeWidth={1.2}
            >
              <title>
                {wall.name}, {shown(wall.height)} m high
              </title>
            </path>
            {!quiet && (
              <text
                x={x(middleOf(wall.corners).x)}
                y={y(Math.min(...wall.corners.map((corner) => corner.y))) + 12}
                textAnchor="middle"
                className="t2 halo-s"
              >
                {wall.name} {shown(wall.height)}
              </text>
            )}
          </g>
        ))}
        {arena.points.map((point) => (
          <g key={point.id}>
            <rect
              x={x(point.x) - Math.max(4, point.radius * scale)}
              y={y(point.y) - Math.max(4, point.radius * scale)}
              width={2 * Math.max(4, point.radius * scale)}
              height={2 * Math.max(4, point.radius * scale)}
              fill={point.health === undefined ? 'none' : 'var(--well)'}
              stroke="var(--ink)"
              transform={`rotate(45 ${x(point.x)} ${y(point.y)})`}
            />
            {!quiet && (
              <text x={x(point.x)} y={y(point.y) - 9} textAnchor="middle" className="t2 halo-s">
                {point.name}
              </text>
            )}
          </g>
        ))}
        {arena.spawnPoints.map((point) => {
          const on = used?.has(point.id);
          const atEdge =
            x(point.x) + Math.max(8, point.scatter * scale) + 4 + point.name.length * 7 > Math.min(width, x(arena.width / 2)) - 2;
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
              <circle
                cx={x(point.x)}
                cy={y(point.y)}
                r={Math.max(8, point.scatter * scale)}
                fill={on ? 'var(--well)' : 'var(--sheet)'}
                fillOpacity={on ? 0.9 : 0.01}
                stroke="var(--ink)"
                strokeWidth={on ? 1.6 : 1}
                strokeDasharray={on ? undefined : '3 3'}
              />
              <path d={`M${x(point.x) - 3} ${y(point.y)} h6 M${x(point.x)} ${y(point.y) - 3} v6`} stroke="var(--ink)" strokeWidth={1.6} />
              {!quiet && (
                <text
                  x={x(point.x) + (atEdge ? -1 : 1) * (Math.max(8, point.scatter * scale) + 4)}
                  y={y(point.y) + 4}
                  textAnchor={atEdge ? 'end' : 'start'}
                  className={`t12 halo-s ${on ? 'tb' : ''}`}
                >
                  {point.name}
                </text>
              )}
            </g>
          );
        })}
        {children}
        <ScaleBar x={x(arena.width / 2) - 10} y={y(-arena.depth / 2) - 10} scale={scale} />
      </svg>
    );
  },
);

function gridLines({ width, depth }: Arena, scale: number): { x: number[]; y: number[] } {
  const step = roundUp(24 / scale);
  const within = (half: number) => {
    const found: number[] = [];
    for (let i = Math.ceil(-half / step); i * step <= half; i++) found.push(i * step);
    return found;
  };
  return { x: within(width / 2), y: within(depth / 2) };
}

function ScaleBar({ x, y, scale }: { x: number; y: number; scale: number }) {
  const metres = roundUp(40 / scale);
  const long = metres * scale;
  return (
    <g pointerEvents="none">
      <path d={`M${x - long} ${y} H${x} M${x - long} ${y - 3} v6 M${x} ${y - 3} v6`} stroke="var(--ink)" fill="none" />
      <text x={x - long / 2} y={y - 5} textAnchor="middle" className="t2 halo-s">
        {shown(metres)} m
      </text>
    </g>
  );
}
