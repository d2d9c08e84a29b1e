/** The head of a column: its name, unit, and by which way it sorts. */
export function Head({
  label,
  unit,
  right,
  sorted,
  onSort,
}: {
  label: string;
  unit?: string;
  right?: boolean;
  sorted?: boolean;
  onSort: () => void;
}) {
  return (
    <span role="columnheader" aria-sort={sorted === undefined ? 'none' : sorted ? 'descending' : 'ascending'} className="min-w-0">
      <button
        type="button"
        className={`w-full px-1.5 py-1 text-label leading-[13px] text-ink-3 hover:text-ink ${right ? 'text-right' : 'pl-0 text-left'}`}
        title="sort by this"
        onClick={onSort}
      >
        {label}
        {unit && ` (${unit})`}
        {sorted !== undefined && (sorted ? ' ▾' : ' ▴')}
      </button>
    </span>
  );
}
