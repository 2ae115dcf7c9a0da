import type { Box } from '../../../../core/evidence/reading/reading.types.ts';

/** A box on a page that is turned clockwise by quarter turns, as it stands afterwards; both as fractions of their page. */
export function turnBox({ x, y, width, height }: Box, quarterTurns: number): Box {
  switch (((quarterTurns % 4) + 4) % 4) {
    case 1:
      return { x: 1 - y - height, y: x, width: height, height: width };
    case 2:
      return { x: 1 - x - width, y: 1 - y - height, width, height };
    case 3:
      return { x: y, y: 1 - x - width, width: height, height: width };
    default:
      return { x, y, width, height };
  }
}

/** The box as it stood before its page was turned. */
export const turnBoxBack = (box: Box, quarterTurns: number): Box => turnBox(box, 4 - (quarterTurns % 4));
