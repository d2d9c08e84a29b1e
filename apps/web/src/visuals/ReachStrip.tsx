import { GAP_BIN, type Unit } from '@insidia/core';
import { shown } from '../fields/number';
import { DragEdge } from './DragEdge';
import { breakAt, reachOf } from './reach';
import { type Scale, broken, linear, roundUp, ticks } from './scale';
import { useWidth } from './useWidth';

interface Props {
  unit: Unit;
  /** Sum of both bodies' radii: sight and lose count from centre to centre. */
  radii: number;
  selected?: string;
  /** s of alerted time by distance, in bins of GAP_BIN metres */
  timeAtGap?: number[];
  onDrag: (path: string, value: number, mark: string) => void;
  onSelect: (attack: string) => void;
}

const LEFT = 64;
const ROW = 20;

/** Every distance of a unit on one ruler from its body's edge. Edges can be dragged. */
export function ReachStrip({ unit, radii, selected, timeAtGap, onDrag, onSelect }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const reach = reachOf(unit);
  const { sight, lose } = unit.senses;
  const farthest = roundUp(Math.max(sight, lose, ...reach.attacks.map(({ max }) => max), 2) - radii + 0.5);
  const split = breakAt(reach, farthest);
  const x = split ? broken(split, farthest, LEFT, width - 16, 0.56, 12) : linear(0, farthest, LEFT, width - 16);
  const bottom = 24 + Math.max(2, reach.attacks.length) * ROW + 34;
  const colour = `var(--e-${unit.colour})`;
  const path = (attack: string, end: 'min' | 'max') => `/attacks/${attack}/range/${end}`;
  return (
    <div ref={ref}>
      <svg width={width} height={bottom + 18} role="group" aria-label={`Reach strip of ${unit.name} in metres between edges of bodies`}>
        {reach.keeps.map((keep) => (
          <Keep key={keep.id} {...keep} x={x} bottom={bottom} onDrag={onDrag} />
        ))}
        {timeAtGap && (
          <TimeSpent
            bins={timeAtGap}
            x={x}
            to={farthest}
            bottom={bottom}
            colour={colour}
            split={split}
            quiet={reach.outOfReach !== undefined}
          />
        )}
        {reach.gaps.map(({ from, to }) => (
          <g key={from}>
            <rect
              x={x(from)}
              y={22}
              width={x(to) - x(from)}
              height={bottom - 22}
              fill="var(--paper)"
              fillOpacity={0.75}
              stroke="var(--warn)"
              strokeWidth={1.5}
            />
            <text x={x(to) + 6} y={bottom - 20} className="t12 tb halo" style={{ fill: 'var(--warn)' }}>
              nothing reaches {shown(from)}–{shown(to)}
            </text>
          </g>
        ))}
        {reach.attacks.map((attack, row) => {
          const y = 24 + row * ROW;
          const on = attack.id === selected;
          const [from, to] = [x(attack.min), x(attack.max)];
          const inside = to - from > 12 + 6.5 * `${attack.name} ${shown(attack.min)}–${shown(attack.max)}`.length;
          return (
            <g key={attack.id}>
              <rect
                x={from}
                y={y}
                width={Math.max(1, to - from)}
                height={14}
                fill={colour}
                fillOpacity={on ? 1 : 0.3}
                onClick={() => onSelect(attack.id)}
                style={{ cursor: 'pointer' }}
              />
              <path d={`M${from} ${y} H${to} M${from} ${y + 14} H${to}`} stroke={colour} />
              <text
                x={inside ? from + 8 : to + 8}
                y={y + 11}
                className={`t12 ${on ? 'tb' : ''} ${inside ? '' : 'halo'}`}
                style={inside && on ? { fill: 'var(--on-e)' } : undefined}
                onClick={() => onSelect(attack.id)}
              >
                {attack.name} {shown(attack.min)}–{shown(attack.max)}
              </text>
              {(['min', 'max'] as const).map((end) => (
                <DragEdge
                  key={end}
                  label={`${attack.name} range ${end === 'min' ? 'from' : 'to'}`}
                  value={attack[end]}
                  min={end === 'min' ? 0 : attack.min}
                  max={end === 'min' ? attack.max : 200}
                  unit="m"
                  step={0.1}
                  valueAt={(position) => x.invert(position)}
                  onMove={(value, mark) => onDrag(path(attack.id, end), value, mark)}
                >
                  <rect x={x(attack[end]) - 6} y={y - 2} width={12} height={18} fill="transparent" />
                  <rect x={x(attack[end]) - 2} y={y - 1} width={4} height={16} fill={colour} />
                </DragEdge>
              ))}
            </g>
          );
        })}
        {reach.stops.map((stop) => (
          <Stop key={stop.id} {...stop} quiet={reach.outOfReach?.state === stop.name} x={x} bottom={bottom} onDrag={onDrag} />
        ))}
        {reach.outOfReach && (
          <g>
            <rect
              x={x(reach.outOfReach.reaches)}
              y={bottom - 12}
              width={Math.max(2, x(reach.outOfReach.stops) - x(reach.outOfReach.reaches))}
              height={12}
              fill="var(--warn-wash)"
              stroke="var(--warn)"
            />
            <text x={x(reach.outOfReach.stops) + 6} y={bottom - 3} className="t12 tb halo" style={{ fill: 'var(--warn)' }}>
              {reach.outOfReach.state} stops at {shown(reach.outOfReach.stops)}, reaches {shown(reach.outOfReach.reaches)}
            </text>
          </g>
        )}
        <Far name="sight" path="/senses/sight" value={sight} offset={radii} x={x} bottom={bottom} onDrag={onDrag} />
        <Far name="lose" path="/senses/lose" value={lose} offset={radii} x={x} bottom={bottom} onDrag={onDrag} />
        <Ruler x={x} farthest={farthest} split={split} bottom={bottom} right={width - 16} />
        <text x={LEFT - 8} y={bottom - 8} textAnchor="end" className="t3">
          body r {shown(unit.body.radius, 2)}
        </text>
      </svg>
    </div>
  );
}

interface Part {
  x: Scale;
  bottom: number;
  onDrag: Props['onDrag'];
}

/** The band a state keeps: a bracket above a stripe. */
function Keep({ id, name, near, far, x, bottom, onDrag }: Part & { id: string; name: string; near: number; far: number }) {
  const edge = (end: 'near' | 'far') => (
    <DragEdge
      label={`${name} keeps ${end === 'near' ? 'from' : 'to'}`}
      value={end === 'near' ? near : far}
      min={end === 'near' ? 0 : near}
      max={end === 'near' ? far : 200}
      unit="m"
      step={0.1}
      valueAt={(position) => x.invert(position)}
      onMove={(value, mark) => onDrag(`/states/${id}/${end}`, value, mark)}
    >
      <rect x={x(end === 'near' ? near : far) - 6} y={10} width={12} height={14} fill="transparent" />
    </DragEdge>
  );
  return (
    <g>
      <rect x={x(near)} y={14} width={x(far) - x(near)} height={bottom - 14} fill="var(--stripe)" />
      <path d={`M${x(near)} 21 V15 H${x(far)} V21`} fill="none" stroke="var(--ink)" strokeWidth={1.5} />
      <text x={(x(near) + x(far)) / 2} y={9} textAnchor="middle" className="t12 halo">
        keeps{' '}
        <tspan className="tb">
          {shown(near)}–{shown(far)}
        </tspan>
      </text>
      {edge('near')}
      {edge('far')}
    </g>
  );
}

/** Where an approach ends. */
function Stop({
  id,
  name,
  at,
  own,
  quiet,
  x,
  bottom,
  onDrag,
}: Part & { id: string; name: string; at: number; own: boolean; quiet: boolean }) {
  return (
    <g>
      <DragEdge
        label={`${name} stops at`}
        value={Number(at.toFixed(3))}
        min={0}
        max={200}
        unit="m"
        step={0.1}
        valueAt={(position) => x.invert(position)}
        onMove={(value, mark) => onDrag(`/states/${id}/stopAt`, value, mark)}
      >
        <rect x={x(at) - 6} y={16} width={12} height={bottom - 16} fill="transparent" />
        <path d={`M${x(at)} 24 V${bottom}`} stroke="var(--ink)" strokeWidth={1} strokeDasharray={own ? undefined : '3 3'} />
        <path d={`M${x(at) - 4} ${bottom - 8} l4 -4 l4 4 l-4 4z`} fill="var(--ink)" />
      </DragEdge>
      {!quiet && (
        <text x={x(at) + 6} y={bottom - 6} className="t12 halo" pointerEvents="none">
          stops <tspan className="tb">{shown(at, 2)}</tspan>
        </text>
      )}
    </g>
  );
}

/** A distance counted from centre to centre: drawn where it is between edges, labelled as it is written. */
function Far({ name, path, value, offset, x, bottom, onDrag }: Part & { name: string; path: string; value: number; offset: number }) {
  const at = x(Math.max(0, value - offset));
  return (
    <g>
      <DragEdge
        label={name}
        value={value}
        min={0}
        max={500}
        unit="m"
        step={0.5}
        valueAt={(position) => x.invert(position) + offset}
        onMove={(next, mark) => onDrag(path, next, mark)}
      >
        <rect x={at - 7} y={10} width={14} height={bottom - 10} fill="transparent" />
        <path d={`M${at} 17 V${bottom}`} stroke="var(--ink-2)" />
        <path d={`M${at} 17 h-7 v-4 h14 v4z`} fill="var(--ink-2)" />
      </DragEdge>
      <text x={at} y={9} textAnchor="middle" className="t12 halo">
        {name} <tspan className="tb">{shown(value, 2)}</tspan>
      </text>
    </g>
  );
}

function TimeSpent({
  bins,
  x,
  to,
  bottom,
  colour,
  split,
  quiet,
}: {
  bins: number[];
  x: Scale;
  to: number;
  bottom: number;
  colour: string;
  split?: number;
  quiet: boolean;
}) {
  const most = Math.max(...bins);
  if (!(most > 0)) return null;
  const count = Math.min(bins.length, Math.ceil(to / GAP_BIN));
  const at = (i: number) => [x((i + 0.5) * GAP_BIN), bottom - (bins[i] / most) * 30] as const;
  const pieces = split ? [bins.slice(0, count).findIndex((_, i) => (i + 0.5) * GAP_BIN > split), count] : [count];
  let from = 0;
  return (
    <g>
      {pieces.map((end) => {
        const points = [];
        for (let i = Math.max(0, from); i < end; i++)
          points.push(
            at(i)
              .map((value) => value.toFixed(1))
              .join(' '),
          );
        from = end;
        if (points.length < 2) return null;
        const line = 'M' + points.join(' L');
        const [first, last] = [points[0].split(' ')[0], points[points.length - 1].split(' ')[0]];
        return (
          <g key={end}>
            <path d={`${line} L${last} ${bottom} L${first} ${bottom}Z`} fill={colour} opacity={0.2} />
            <path d={line} fill="none" stroke={colour} strokeWidth={1.4} />
          </g>
        );
      })}
      {!quiet && (
        <text x={x(to)} y={bottom - 5} textAnchor="end" className="t3 halo">
          time spent at each distance
        </text>
      )}
    </g>
  );
}

function Ruler({ x, farthest, split, bottom, right }: { x: Scale; farthest: number; split?: number; bottom: number; right: number }) {
  const marks = split ? [...ticks(0, split, 6), ...ticks(split, farthest, 4).filter((tick) => tick > split * 1.05)] : ticks(0, farthest, 8);
  return (
    <g pointerEvents="none">
      <path d={`M${LEFT} ${bottom + 0.5} H${right}`} className="axis" />
      {split && (
        <g>
          <rect x={x(split) + 1} y={12} width={10} height={bottom - 4} fill="var(--paper)" />
          <path d={`M${x(split) + 1} ${bottom + 6} l4 -12 M${x(split) + 7} ${bottom + 6} l4 -12`} stroke="var(--ink-2)" fill="none" />
        </g>
      )}
      {marks.map((tick, i) => (
        <g key={tick}>
          <path d={`M${x(tick)} ${bottom} v4`} className="axis" />
          <text x={x(tick)} y={bottom + 15} textAnchor="middle" className="t3">
            {shown(tick)}
            {i === marks.length - 1 ? ' m' : ''}
          </text>
        </g>
      ))}
    </g>
  );
}
