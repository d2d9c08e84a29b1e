import type { Verdict } from '@insidia/core';

export const VERDICT_WORDS: Record<Verdict, string> = {
  met: 'met',
  missedLow: 'missed low',
  missedHigh: 'missed high',
  undecided: 'undecided',
};

/** Where a measure lies to its band, by shape first: a bracket is the band, the mark lies in it, beside it, or across its edge. */
export function VerdictMark({ verdict, size = 12 }: { verdict: Verdict; size?: number }) {
  const width = (size * 26) / 12;
  return (
    <svg width={width} height={size} viewBox="0 0 26 12" fill="none" role="img" aria-label={VERDICT_WORDS[verdict]}>
      {verdict === 'met' && (
        <>
          <path d="M9 1.5 H7 V10.5 H9 M17 1.5 H19 V10.5 H17" stroke="var(--met)" strokeWidth={1.6} />
          <circle cx={13} cy={6} r={2.6} fill="var(--met)" />
        </>
      )}
      {verdict === 'missedLow' && (
        <>
          <path d="M14 1.5 H12 V10.5 H14 M22 1.5 H24 V10.5 H22" stroke="var(--ink-3)" strokeWidth={1.4} />
          <path d="M9 1.5 V10.5 L2 6 Z" fill="var(--miss)" />
        </>
      )}
      {verdict === 'missedHigh' && (
        <>
          <path d="M4 1.5 H2 V10.5 H4 M12 1.5 H14 V10.5 H12" stroke="var(--ink-3)" strokeWidth={1.4} />
          <path d="M17 1.5 V10.5 L24 6 Z" fill="var(--miss)" />
        </>
      )}
      {verdict === 'undecided' && (
        <>
          <path d="M5.5 1 H4 V11 H5.5 M15.5 1 H17 V11 H15.5" stroke="var(--open)" strokeWidth={1.6} strokeDasharray="1.6 1.1" />
          <path d="M9 6 H13 M21 6 H25.4" stroke="var(--open)" strokeWidth={1.8} strokeDasharray="1.6 1.2" />
          <path d="M17 2.2 L20.8 6 L17 9.8 L13.2 6 Z" fill="var(--sheet)" stroke="var(--open)" strokeWidth={1.5} />
        </>
      )}
    </svg>
  );
}
