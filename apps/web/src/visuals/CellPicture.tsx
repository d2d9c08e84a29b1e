import { type CellPictureOptions, cellPicture } from '@insidia/core';
import { memo } from 'react';
import { Shapes } from './Shapes';

/** A small distribution against its band. */
export const CellPicture = memo(function CellPicture(options: CellPictureOptions) {
  return (
    <svg width={options.width} height={options.height} aria-hidden className="block">
      <Shapes shapes={cellPicture(options)} />
    </svg>
  );
});
