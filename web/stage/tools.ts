/** A trim leaves at least this many original pixels each way. */
export const smallestTrim = 16;

/** What dragging on the original does: move frames, draw a mark, or draw a line that is to be level. */
export type Tool = 'frame' | 'keep' | 'avoid' | 'level';

/** A mark is at least this many original pixels wide and high. */
export const smallestMark = 8;
