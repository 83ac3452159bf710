/** What dragging on the original does: move frames, draw a mark, or draw a line that is to be level. */
export type Tool = 'frame' | 'keep' | 'avoid' | 'level';
