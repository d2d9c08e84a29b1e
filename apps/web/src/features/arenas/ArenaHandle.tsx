import type { Arena } from '@insidia/core';
import type { PointerEvent } from 'react';
import { type planScale, polygon } from '../../visuals/plan';
import { PARTY_STARTS, SIGN, partyStartsAt } from '../../visuals/planLabels';
import { cornersOf, middle, type Ref, WORDS } from './shapes';

interface Props {
  each: Ref;
  arena: Arena;
  plan: ReturnType<typeof planScale>;
  on: boolean;
  alone: boolean;
  name: string;
  onGrab: (event: PointerEvent<SVGElement>) => void;
  onCorner: (index: number) => (event: PointerEvent<SVGElement>) => void;
  onTurn: (event: PointerEvent<SVGElement>) => void;
  onSelect: () => void;
}

/** What is taken hold of: the shape itself, and its corners and a turning knob where it alone is chosen. */
export function ArenaHandle({ each, arena, plan, on, alone, name, onGrab, onCorner, onTurn, onSelect }: Props) {
  const corners = cornersOf(arena, each);
  if (!corners.length) return null;
  const centre = middle(corners);
  const says = partyStartsAt(arena, plan);
  const shape = corners.length > 1;
  const outline = on ? 'var(--focus)' : 'transparent';
  const common = {
    role: 'button',
    tabIndex: 0,
    'aria-label': `${each.kind === 'partyStart' ? PARTY_STARTS : `${WORDS[each.kind]} ${name}`}`,
    'aria-pressed': on,
    onPointerDown: onGrab,
    onFocus: (event: React.FocusEvent) => event.currentTarget.matches(':focus-visible') && onSelect(),
    style: { cursor: 'move', touchAction: 'none' as const },
  };
  const top = Math.max(...corners.map(({ y }) => y));
  return (
    <g>
      {shape ? (
        <path
          d={polygon(corners, plan)}
          fill={on ? 'var(--focus)' : 'transparent'}
          fillOpacity={on ? 0.15 : 0}
          stroke={outline}
          strokeWidth={2}
          {...common}
        />
      ) : (
        <g {...common}>
          {each.kind === 'partyStart' && (
            <g>
              <circle cx={plan.x(centre.x)} cy={plan.y(centre.y)} r={SIGN.partyStart} fill="none" stroke="var(--ink)" />
              <path d={`M${plan.x(centre.x) - 4} ${plan.y(centre.y)} l4 -4 l4 4 l-4 4z`} fill="var(--sheet)" stroke="var(--ink)" />
              <text x={says.x} y={says.y} textAnchor={says.anchor} className="t3 halo-s">
                {PARTY_STARTS}
              </text>
            </g>
          )}
          <circle cx={plan.x(centre.x)} cy={plan.y(centre.y)} r={12} fill="transparent" stroke={outline} strokeWidth={2} />
        </g>
      )}
      {alone && shape && (
        <g>
          <path d={`M${plan.x(centre.x)} ${plan.y(top)} V${plan.y(top) - 20}`} stroke="var(--focus)" />
          <circle
            cx={plan.x(centre.x)}
            cy={plan.y(top) - 22}
            r={5}
            fill="var(--sheet)"
            stroke="var(--focus)"
            strokeWidth={2}
            onPointerDown={onTurn}
            style={{ cursor: 'grab' }}
          >
            <title>turn it, by 15° or finely with Alt</title>
          </circle>
          {corners.map((corner, i) => (
            <rect
              key={i}
              x={plan.x(corner.x) - 4}
              y={plan.y(corner.y) - 4}
              width={8}
              height={8}
              fill="var(--sheet)"
              stroke="var(--focus)"
              strokeWidth={2}
              onPointerDown={onCorner(i)}
              style={{ cursor: 'crosshair' }}
              data-corner={i}
            />
          ))}
        </g>
      )}
    </g>
  );
}
