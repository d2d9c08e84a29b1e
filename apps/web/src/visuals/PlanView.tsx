import { type Attack, type Unit, shown, roundUp, dashOnPaper, traitsOf } from '@insidia/core';
import { guarded } from '../parts/guarded';

interface Props {
  unit: Unit;
  /** The attack whose shape is drawn. */
  attack?: Attack;
  /** Who stands opposite, for the heights. */
  other?: Unit;
  width: number;
}

const HEIGHT = 176;

/** The same unit from above and from the side, to scale: arcs, cones and areas of an attack, angle of sight, heights of eye and muzzle. */
export const PlanView = guarded('The plan', function PlanView({ unit, attack, other, width }: Props) {
  const half = Math.floor(width * 0.52);
  return (
    <div className="flex">
      <FromAbove unit={unit} attack={attack} other={other} width={half} />
      <FromTheSide unit={unit} attack={attack} other={other} width={width - half} />
    </div>
  );
});

/** A sector of a circle, opening to the right; a whole circle from 360° on. */
function sector(cx: number, cy: number, radius: number, degrees: number): string {
  if (degrees >= 359.9)
    return `M${cx - radius} ${cy} a${radius} ${radius} 0 1 1 ${2 * radius} 0 a${radius} ${radius} 0 1 1 ${-2 * radius} 0`;
  const half = (degrees * Math.PI) / 360;
  const [dx, dy] = [radius * Math.cos(half), radius * Math.sin(half)];
  return `M${cx} ${cy} L${cx + dx} ${cy - dy} A${radius} ${radius} 0 ${degrees > 180 ? 1 : 0} 1 ${cx + dx} ${cy + dy} Z`;
}

function FromAbove({ unit, attack, other, width }: Props) {
  const { radius } = unit.body;
  const gap = attack ? Math.max(attack.range.min, Math.min(attack.range.max, (attack.range.min + attack.range.max) / 2)) : 3;
  const foe = radius + gap + (other?.body.radius ?? 0.4);
  const about = attack?.area ? (attack.area.about === 'self' ? 0 : foe) : 0;
  const reach = attack ? (attack.area ? about + attack.area.radius : radius + attack.range.max) : radius * 3;
  const goes = attack ? (dashOnPaper(attack, gap)?.metres ?? 0) : 0;
  const way = attack?.dash?.way;
  const behind = Math.max(
    radius * 1.6,
    way === 'away' ? goes + radius : 0,
    attack?.area && about < attack.area.radius ? attack.area.radius - about : 0,
  );
  const ahead = Math.max(reach, way === 'target' || way === 'ahead' ? goes + radius : 0, foe + (other?.body.radius ?? 0.4)) * 1.08;
  const tall = Math.max(
    radius * 2.4,
    way === 'sideways' ? 2 * (goes + radius) : 0,
    attack?.area ? attack.area.radius * 2.1 : 0,
    attack && reaches(attack) ? 2 * (radius + attack.range.max) * Math.sin((Math.min(180, attack.arc) * Math.PI) / 360) * 1.1 : 0,
  );
  const scale = Math.min((width - 16) / (ahead + behind), (HEIGHT - 30) / tall);
  const cx = 8 + behind * scale;
  const cy = HEIGHT / 2 - 6;
  const m = (metres: number) => metres * scale;
  const colour = `var(--e-${unit.colour})`;
  const beyond = Math.hypot(width, HEIGHT);
  return (
    <svg width={width} height={HEIGHT} role="img" aria-label={`${unit.name} from above: ${words(unit, attack)}`}>
      <clipPath id={`plan-${unit.id}`}>
        <rect width={width} height={HEIGHT} />
      </clipPath>
      <g clipPath={`url(#plan-${unit.id})`}>
        <path d={sector(cx, cy, beyond, unit.senses.angle)} fill="var(--stripe)" stroke="var(--hair)" />
        {attack && reaches(attack) && (
          <path d={sector(cx, cy, m(radius + attack.range.max), attack.arc)} fill={colour} opacity={0.35} stroke={colour} />
        )}
        {attack?.area && (
          <path
            d={sector(cx + m(about), cy, m(attack.area.radius), about > 0 ? 360 : attack.area.angle)}
            fill={colour}
            opacity={0.35}
            stroke={colour}
          />
        )}
        {attack && !attack.area && !reaches(attack) && traitsOf(attack.delivery).needsTarget && (
          <path
            d={sector(cx, cy, m(radius + attack.range.max), Math.max(attack.projectile?.spread ?? 0, 1.2))}
            fill={colour}
            opacity={0.45}
            stroke={colour}
          />
        )}
        {attack && attack.facing < 180 && (
          <path
            d={sector(cx, cy, m(radius + Math.max(attack.range.max, 0.5)), attack.facing * 2)}
            fill="none"
            stroke="var(--ink-3)"
            strokeDasharray="3 3"
          />
        )}
        {unit.armour.arc !== undefined && (
          <path d={sector(cx, cy, m(radius) + 5, unit.armour.arc)} fill="none" stroke="var(--ink)" strokeWidth={2} />
        )}
        {attack?.dash && <Dash attack={attack} gap={gap} x={cx} y={cy} radius={Math.max(2, m(radius))} m={m} colour={colour} />}
        <circle cx={cx} cy={cy} r={Math.max(2, m(radius))} fill={colour} />
        <path d={`M${cx} ${cy} h${Math.max(4, m(radius))}`} stroke="var(--on-e)" strokeWidth={1.5} />
        {attack?.projectile?.muzzles.map(({ id, ahead: x, left }) => (
          <circle key={id} cx={cx + m(x)} cy={cy - m(left)} r={2.2} fill="var(--sheet)" stroke={colour} />
        ))}
        {other && (
          <circle cx={cx + m(foe)} cy={cy} r={Math.max(2, m(other.body.radius))} fill="none" stroke="var(--ink)" strokeWidth={1.5} />
        )}
      </g>
      <Bar scale={scale} y={HEIGHT - 12} />
      <text x={width - 8} y={HEIGHT - 8} textAnchor="end" className="t3">
        {words(unit, attack)}
      </text>
    </svg>
  );
}

/** Where its movement takes the body: the target stands to the right. */
function Dash({
  attack,
  gap,
  x,
  y,
  radius,
  m,
  colour,
}: {
  attack: Attack;
  gap: number;
  x: number;
  y: number;
  radius: number;
  m: (metres: number) => number;
  colour: string;
}) {
  const metres = m(dashOnPaper(attack, gap)!.metres);
  const way = attack.dash!.way;
  const [dx, dy] = way === 'away' ? [-metres, 0] : way === 'sideways' ? [0, -metres] : [metres, 0];
  return (
    <g aria-label="where its movement takes it">
      <path d={`M${x} ${y} l${dx} ${dy}`} stroke="var(--ink)" strokeWidth={1.5} />
      <circle cx={x + dx} cy={y + dy} r={radius} fill={colour} fillOpacity={0.35} stroke="var(--ink)" strokeDasharray="2 2" />
    </g>
  );
}

/** Strikes all within its reach and arc. */
const reaches = (attack: Attack) => traitsOf(attack.delivery).escape === 'reach';

function words(unit: Unit, attack?: Attack): string {
  const parts = [`sees ${shown(unit.senses.angle)}°`];
  if (attack && reaches(attack)) parts.push(`arc ${shown(attack.arc)}°`);
  if (attack?.area)
    parts.push(
      attack.area.angle < 360
        ? `cone ${shown(attack.area.radius)} m, ${shown(attack.area.angle)}°`
        : `circle ${shown(attack.area.radius)} m`,
    );
  if (attack?.projectile?.spread) parts.push(`spread ${shown(attack.projectile.spread)}°`);
  if (attack && attack.facing < 180) parts.push(`faces within ${shown(attack.facing)}°`);
  return parts.join(', ');
}

function FromTheSide({ unit, attack, other, width }: Props) {
  const { radius, height, eyeHeight, muzzleHeight } = unit.body;
  const tall = Math.max(height, other?.body.height ?? 0) * 1.15;
  const foeRadius = other?.body.radius ?? 0.4;
  const scale = Math.min((HEIGHT - 34) / tall, (width - 120) / (2 * radius + 2 * foeRadius + tall * 0.8));
  const ground = HEIGHT - 18;
  const m = (metres: number) => metres * scale;
  const x = 16 + m(radius);
  const foeX = width - 74 - m(foeRadius);
  const colour = `var(--e-${unit.colour})`;
  const aims = attack && traitsOf(attack.delivery).alongLine;
  return (
    <svg
      width={width}
      height={HEIGHT}
      role="img"
      aria-label={`${unit.name} from the side: ${shown(height)} m high, eyes at ${shown(eyeHeight)} m, muzzle at ${shown(muzzleHeight)} m`}
    >
      <path d={`M4 ${ground + 0.5} H${width - 4}`} className="axis" />
      <rect
        x={x - m(radius)}
        y={ground - m(height)}
        width={m(2 * radius)}
        height={m(height)}
        fill={colour}
        opacity={0.25}
        stroke={colour}
      />
      {other && (
        <rect
          x={foeX - m(foeRadius)}
          y={ground - m(other.body.height)}
          width={m(2 * foeRadius)}
          height={m(other.body.height)}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.5}
        />
      )}
      {other && (
        <path
          d={`M${x} ${ground - m(eyeHeight)} L${foeX} ${ground - m(other.body.height / 2)}`}
          stroke="var(--ink-3)"
          strokeDasharray="3 3"
        />
      )}
      {other && aims && (
        <path d={`M${x} ${ground - m(muzzleHeight)} L${foeX} ${ground - m(other.body.height / 2)}`} stroke={colour} strokeWidth={1.4} />
      )}
      <circle cx={x} cy={ground - m(eyeHeight)} r={3} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={1.4} />
      <path d={`M${x + m(radius) - 4} ${ground - m(muzzleHeight)} l7 -3.5 v7z`} fill={colour} />
      <text x={x + m(radius) + 8} y={ground - m(eyeHeight) - 2} className="t2 halo">
        eye {shown(eyeHeight)}
      </text>
      <text x={x + m(radius) + 8} y={ground - m(muzzleHeight) + (Math.abs(m(eyeHeight - muzzleHeight)) < 11 ? 10 : 4)} className="t2 halo">
        muzzle {shown(muzzleHeight)}
      </text>
      {other && (
        <text x={foeX + m(foeRadius) + 6} y={ground - m(other.body.height) + 8} className="t2">
          {shown(other.body.height)} m
        </text>
      )}
      <text x={x} y={ground + 14} textAnchor="middle" className="t3">
        {shown(height)} m
      </text>
      {other && (
        <text x={foeX} y={ground + 14} textAnchor="middle" className="t3">
          {other.name}
        </text>
      )}
    </svg>
  );
}

/** A bar that says how long a metre is. */
function Bar({ scale, y }: { scale: number; y: number }) {
  const metres = roundUp(28 / scale);
  return (
    <g>
      <path d={`M8 ${y} h${metres * scale} M8 ${y - 3} v6 M${8 + metres * scale} ${y - 3} v6`} className="axis" />
      <text x={12 + metres * scale} y={y + 4} className="t3">
        {shown(metres)} m
      </text>
    </g>
  );
}
