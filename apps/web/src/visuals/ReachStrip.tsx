import { GAP_BIN, type Unit, shown, type Scale, broken, linear, roundUp, ticks } from '@insidia/core';
import { DragEdge } from './DragEdge';
import { fitting, lines, wideAs } from './labels';
import { breakAt, reachOf } from './reach';
import { useWidth } from './useWidth';
import { guarded } from '../parts/guarded';

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
export const ReachStrip = guarded('The reach strip', function ReachStrip({ unit, radii, selected, timeAtGap, onDrag, onSelect }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(700);
  const reach = reachOf(unit);
  const fars = farsOf(unit);
  const farthest = roundUp(
    Math.max(...fars.map(({ value, centre }) => (centre ? value - radii : value)), ...reach.attacks.map(({ max }) => max), 2) + 0.5,
  );
  const { lanes, of: laneOf } = lanesOf(reach.attacks);
  const row = lanes > 6 ? 11 : ROW;
  const split = breakAt(reach, farthest);
  const x = split ? broken(split, farthest, LEFT, width - 16, 0.56, 12) : linear(0, farthest, LEFT, width - 16);
  const bottom = 36 + Math.max(2, lanes) * row + 34;
  const colour = `var(--e-${unit.colour})`;
  const path = (attack: string, end: 'min' | 'max') => `/attacks/${attack}/range/${end}`;
  return (
    <div ref={ref}>
      <svg width={width} height={bottom + 18} role="group" aria-label={`Reach strip of ${unit.name} in metres between edges of bodies`}>
        {lines(reach.keeps.map((keep) => keepLabel(keep, x))).map((line, i) => (
          <Keep key={reach.keeps[i].id} {...reach.keeps[i]} line={line} x={x} bottom={bottom} onDrag={onDrag} />
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
              y={34}
              width={x(to) - x(from)}
              height={bottom - 34}
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
        {reach.attacks.map((attack, i) => {
          const y = 36 + laneOf[i] * row;
          const high = Math.min(14, row - 1);
          const on = attack.id === selected;
          const [from, to] = [x(attack.min), x(attack.max)];
          const metres = `${shown(attack.min)}–${shown(attack.max)}`;
          // In its bar, else behind it; where neither has room for all of it, where there is more.
          const whole = wideAs(`${attack.name} ${metres}`, 6.5);
          const room = { inside: to - from - 12, behind: width - to - 12 };
          const inside = room.inside > whole || (room.behind < whole && room.inside > room.behind);
          const name = fitting(attack.name, (inside ? room.inside : room.behind) - wideAs(` ${metres}`, 6.5), 6.5);
          return (
            <g key={attack.id}>
              <rect
                x={from}
                y={y}
                width={Math.max(1, to - from)}
                height={high}
                fill={colour}
                fillOpacity={on ? 1 : 0.3}
                onClick={() => onSelect(attack.id)}
                style={{ cursor: 'pointer' }}
              />
              <path d={`M${from} ${y} H${to} M${from} ${y + high} H${to}`} stroke={colour} />
              {attack.carries !== 0 && <Carries attack={attack} x={x} y={y + high + 2.5} />}
              {(row === ROW || on) && (
                <text
                  x={inside ? from + 8 : to + 8}
                  y={y + high - 3}
                  className={`t12 ${on ? 'tb' : ''} ${inside ? '' : 'halo'}`}
                  style={inside && on ? { fill: 'var(--on-e)' } : undefined}
                  onClick={() => onSelect(attack.id)}
                >
                  {name} {metres}
                  {name !== attack.name && <title>{attack.name}</title>}
                </text>
              )}
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
                  <rect x={x(attack[end]) - 6} y={y - 2} width={12} height={high + 4} fill="transparent" />
                  <rect x={x(attack[end]) - 2} y={y - 1} width={4} height={high + 2} fill={colour} />
                </DragEdge>
              ))}
            </g>
          );
        })}
        {reach.stops.map((stop, i) => (
          <Stop
            key={stop.id}
            {...stop}
            level={
              reach.stops.slice(0, i).filter(({ at }) => Math.abs(x(at) - x(stop.at)) < 60).length +
              (underWarning(reach, stop.at, x) ? 1 : 0)
            }
            quiet={reach.outOfReach?.state === stop.name}
            x={x}
            bottom={bottom}
            onDrag={onDrag}
          />
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
        {stacks(fars.map(({ value, centre }) => x(Math.max(0, centre ? value - radii : value)))).map((level, i) => (
          <Far key={fars[i].path} {...fars[i]} level={level} offset={fars[i].centre ? radii : 0} x={x} bottom={bottom} onDrag={onDrag} />
        ))}
        <Thresholds unit={unit} to={farthest} x={x} bottom={bottom} onDrag={onDrag} />
        <Ruler x={x} farthest={farthest} split={split} bottom={bottom} right={width - 16} />
        <text x={LEFT - 8} y={bottom - 8} textAnchor="end" className="t3">
          body r {shown(unit.body.radius, 2)}
        </text>
      </svg>
    </div>
  );
});

/** Whether the label of a stop would lie on what is said of one that is out of reach. */
const underWarning = ({ outOfReach }: ReturnType<typeof reachOf>, at: number, x: Scale): boolean =>
  outOfReach !== undefined && x(at) + 60 > x(outOfReach.reaches) && x(at) < x(outOfReach.stops) + 200;

/** From its farthest range to where its movement takes the body, edge to edge. */
function Carries({ attack: { max, carries }, x, y }: { attack: ReturnType<typeof reachOf>['attacks'][number]; x: Scale; y: number }) {
  const to = x(Math.max(0, max - carries));
  const back = to < x(max) ? 4 : -4;
  return (
    <path
      d={`M${x(max)} ${y} H${to} m${back} -3 l${0 - back} 3 l${back} 3`}
      fill="none"
      stroke="var(--ink)"
      strokeWidth={1.5}
      pointerEvents="none"
    >
      <title>{`its movement takes it ${carries > 0 ? 'to' : 'back to'} ${shown(Math.max(0, max - carries))} m`}</title>
    </path>
  );
}

/** Distances of a unit that are no attack's and no state's. */
function farsOf(unit: Unit): { name: string; path: string; value: number; centre: boolean }[] {
  const { senses, leash, temper } = unit;
  return [
    { name: 'sight', path: '/senses/sight', value: senses.sight, centre: true },
    { name: 'lose', path: '/senses/lose', value: senses.lose, centre: true },
    ...(senses.hearing > 0 ? [{ name: 'hears', path: '/senses/hearing', value: senses.hearing, centre: true }] : []),
    ...(leash ? [{ name: 'leash', path: '/leash/radius', value: leash.radius, centre: false }] : []),
    ...(temper.alertRadius > 0 ? [{ name: 'calls', path: '/temper/alertRadius', value: temper.alertRadius, centre: true }] : []),
  ];
}

/** 0 or 1 for each label: on the upper line where the lower is taken by a neighbour. */
function stacks(places: readonly number[]): number[] {
  const order = places.map((_, i) => i).sort((a, b) => places[a] - places[b]);
  const levels = places.map(() => 0);
  let last = -Infinity;
  for (const i of order) {
    if (places[i] - last < 58) levels[i] = 1;
    else last = places[i];
  }
  return levels;
}

/** Attacks in as few lanes as fit without overlap, in their order; up to six keep a lane each. */
function lanesOf(attacks: readonly { min: number; max: number }[]): { lanes: number; of: number[] } {
  if (attacks.length <= 6) return { lanes: attacks.length, of: attacks.map((_, i) => i) };
  const ends: number[] = [];
  const of = attacks.map(({ min, max }) => {
    const free = ends.findIndex((end) => end < min);
    const lane = free >= 0 ? free : ends.length;
    ends[lane] = max;
    return lane;
  });
  return { lanes: ends.length, of };
}

interface Part {
  x: Scale;
  bottom: number;
  onDrag: Props['onDrag'];
}

const keepLabel = ({ near, far }: { near: number; far: number }, x: Scale) => {
  const [middle, half] = [(x(near) + x(far)) / 2, wideAs(`keeps ${shown(near)}–${shown(far)}`) / 2];
  return { from: middle - half, to: middle + half };
};

/** The band a state keeps: a bracket above a stripe. @param line of its label, upwards */
function Keep({
  id,
  name,
  near,
  far,
  line,
  x,
  bottom,
  onDrag,
}: Part & { id: string; name: string; near: number; far: number; line: number }) {
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
      <rect x={x(end === 'near' ? near : far) - 6} y={22} width={12} height={14} fill="transparent" />
    </DragEdge>
  );
  return (
    <g>
      <rect x={x(near)} y={26} width={x(far) - x(near)} height={bottom - 26} fill="var(--stripe)" />
      <path d={`M${x(near)} 33 V27 H${x(far)} V33`} fill="none" stroke="var(--ink)" strokeWidth={1.5} />
      <text x={(x(near) + x(far)) / 2} y={22 - 11 * Math.min(line, 1)} textAnchor="middle" className="t12 halo">
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

/** Where an approach ends; those that end near one another have their grips one above the other. */
function Stop({
  id,
  name,
  at,
  own,
  level,
  quiet,
  x,
  bottom,
  onDrag,
}: Part & { id: string; name: string; at: number; own: boolean; level: number; quiet: boolean }) {
  const grip = bottom - 10 - level * 13;
  return (
    <g>
      <path
        d={`M${x(at)} 36 V${bottom}`}
        stroke="var(--ink)"
        strokeWidth={1}
        strokeDasharray={own ? undefined : '3 3'}
        pointerEvents="none"
      />
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
        <rect x={x(at) - 6} y={grip - 6} width={12} height={12} fill="transparent" />
        <path d={`M${x(at) - 4} ${grip} l4 -4 l4 4 l-4 4z`} fill="var(--ink)" />
      </DragEdge>
      {!quiet && (
        <text x={x(at) + 6} y={grip + 4} className="t12 halo" pointerEvents="none">
          {level > 0 ? `${name} stops` : 'stops'} <tspan className="tb">{shown(at, 2)}</tspan>
        </text>
      )}
    </g>
  );
}

/** Distances that ways out of states turn on: small marks under the ruler, each with its sentence. */
function Thresholds({ unit, to: farthest, x, bottom, onDrag }: Part & { unit: Unit; to: number }) {
  const marks = unit.states.flatMap((state) =>
    state.leaves.flatMap(({ when, to }, i) => {
      if (!when || !TO_A_FOE.has(when.subject) || when.value === undefined || when.value > farthest || when.is === undefined) return [];
      const target = unit.states.find(({ id }) => id === to)?.name ?? to;
      return [
        {
          path: `/states/${state.id}/leaves/${i}/when/value`,
          label: `${state.name} to ${target} ${when.is}`,
          words: `${state.name} → ${target} ${when.is} ${shown(when.value)} m`,
          value: when.value,
          below: when.is === 'below',
        },
      ];
    }),
  );
  return (
    <g>
      {marks.map(({ path, label, words, value, below }) => (
        <DragEdge
          key={path}
          label={label}
          value={value}
          min={0}
          max={500}
          unit="m"
          step={0.1}
          valueAt={(position) => x.invert(position)}
          onMove={(next, mark) => onDrag(path, next, mark)}
        >
          <title>{words}</title>
          <rect x={x(value) - 5} y={bottom + 1} width={10} height={9} fill="transparent" />
          <path d={`M${x(value)} ${bottom + 2} l${below ? -7 : 7} 3.5 l${below ? 7 : -7} 3.5z`} fill="var(--ink-3)" />
        </DragEdge>
      ))}
    </g>
  );
}

const TO_A_FOE = new Set(['distance', 'nearestFoe']);

/** A distance about the body: from centre to centre ones are drawn where they lie between edges and labelled as written. */
function Far({
  name,
  path,
  value,
  offset,
  level,
  x,
  bottom,
  onDrag,
}: Part & { name: string; path: string; value: number; offset: number; level: number }) {
  const at = x(Math.max(0, value - offset));
  const top = 12 + level * 12;
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
        <rect x={at - 7} y={top - 2} width={14} height={bottom - top + 2} fill="transparent" />
        <path d={`M${at} ${top + 5} V${bottom}`} stroke="var(--ink-2)" />
        <path d={`M${at} ${top + 5} h-7 v-4 h14 v4z`} fill="var(--ink-2)" />
      </DragEdge>
      <text x={at} y={top - 3} textAnchor="middle" className="t12 halo">
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
