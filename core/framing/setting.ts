import type { Rect } from '../geometry/index.ts';
import type { WordsSide } from './besideWords.ts';
import type { ContentArea } from './contentArea.ts';
import type { FramePose } from './halfSpaces.ts';

/** What a window is composed for, in coordinates of about 1. */
export interface Setting {
  contentArea: ContentArea;
  framePose: FramePose;
  /** The picture. */
  box: Rect;
  /** The widest span that lies on the picture. */
  full: number;
  /** The narrowest span that enlarges nothing. */
  sharpSpan: number;
  /** Where room is made for words, and how much, in squares of the frame's shorter side; null for none. */
  words: { side: WordsSide; asked: number } | null;
}
