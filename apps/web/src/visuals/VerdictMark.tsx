import { VERDICT_SHAPES, VERDICT_SIZE, VERDICT_WORDS, type Verdict } from '@insidia/core';
import { Shapes } from './Shapes';

/** Where a measure lies to its band, by shape first. */
export function VerdictMark({ verdict, size = VERDICT_SIZE.height }: { verdict: Verdict; size?: number }) {
  const { width, height } = VERDICT_SIZE;
  return (
    <svg
      width={(size * width) / height}
      height={size}
      viewBox={`0 0 ${width} ${height}`}
      fill="none"
      role="img"
      aria-label={VERDICT_WORDS[verdict]}
    >
      <Shapes shapes={VERDICT_SHAPES[verdict]} />
    </svg>
  );
}
