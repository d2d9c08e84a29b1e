import { IDLE_REASONS, type KindSummary, TIME_USES, type TimeUse, type Unit, timeUseWords } from '@insidia/core';

const ATTACKING: readonly TimeUse[] = ['windup', 'active', 'recovery'];

/** Where alerted time goes: attacking in the type's colour, idle time by what stood in the way. */
export function TimeUseBar({ timeUse, unit, width }: { timeUse: NonNullable<KindSummary['timeUse']>; unit: Unit; width: number }) {
  const colour = `var(--e-${unit.colour})`;
  const idle = IDLE_REASONS.filter((use) => timeUse[use].value >= 0.005).sort((a, b) => timeUse[b].value - timeUse[a].value);
  const order = [...idle, ...ATTACKING.filter((use) => timeUse[use].value >= 0.0005)];
  const fill = (use: TimeUse) => (ATTACKING.includes(use) ? colour : `var(--r-${use})`);
  let from = 0;
  return (
    <div>
      <svg
        width={width}
        height={12}
        role="img"
        aria-label={TIME_USES.map((use) => `${timeUseWords(use)} ${Math.round(100 * timeUse[use].value)} %`).join(', ')}
      >
        {order.map((use) => {
          const start = from;
          from += timeUse[use].value * width;
          return (
            <rect
              key={use}
              x={start}
              width={Math.max(0, from - start - 1)}
              height={12}
              fill={fill(use)}
              opacity={use === 'windup' ? 0.55 : use === 'recovery' ? 0.75 : 1}
            />
          );
        })}
      </svg>
      <div className="mt-1 grid grid-cols-3 gap-x-2">
        {order.map((use) => (
          <span key={use} className="flex items-center gap-1 whitespace-nowrap text-label">
            <svg width={8} height={8} aria-hidden>
              <rect width={8} height={8} fill={fill(use)} opacity={use === 'windup' ? 0.55 : use === 'recovery' ? 0.75 : 1} />
            </svg>
            <span className="text-ink-2">{timeUseWords(use)}</span>
            <span className="flex-1" />
            <b title={`interval ${(100 * timeUse[use].low).toFixed(1)}–${(100 * timeUse[use].high).toFixed(1)} %`}>
              {Math.round(100 * timeUse[use].value)}
            </b>
          </span>
        ))}
      </div>
    </div>
  );
}
