/** The sign of a warning; without a label it only adorns what says so beside it. The same beside fields, in lists and on the bench. */
export function WarnMark({ label, size = 11, quiet = false }: { label: string; size?: number; quiet?: boolean }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 12 12"
      role={label ? 'img' : undefined}
      aria-hidden={!label}
      aria-label={label || undefined}
      className="shrink-0"
    >
      {label && <title>{label}</title>}
      <path
        d="M6 1.2 L11.2 10.6 H0.8 Z"
        fill={quiet ? 'none' : 'var(--warn)'}
        stroke={quiet ? 'var(--ink-2)' : 'var(--warn)'}
        strokeWidth={1.2}
        strokeLinejoin="round"
      />
      <path d="M6 4.2 V7.3 M6 8.6 V9.7" stroke={quiet ? 'var(--ink-2)' : 'var(--on-e)'} strokeWidth={1.3} />
    </svg>
  );
}
