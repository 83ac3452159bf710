import { boundsOf, clampWindow, type Picture, spreadOf, wholeWindow } from '../geometry/index.ts';
import type { FrameSettings, Mark, Place, Window } from '../model/index.ts';
import { composeStrip } from '../splitting/index.ts';
import { composeWindow } from './composeWindow.ts';
import { type ContentAreaSettings, contentAreaOf } from './contentArea.ts';

/**
 * The window that a frame shows: composed from the marks until a hand has moved it, and always where it may lie.
 *
 * @param wordsRoom that its words ask for, in squares of its shorter side
 */
export function frameWindow(
  original: Picture & { marks: readonly Mark[] },
  place: Place,
  settings: Pick<FrameSettings, 'window' | 'composed' | 'backing'> & ContentAreaSettings,
  wordsRoom: number,
): Window {
  const contentArea = contentAreaOf(place, original, settings);
  const output = contentArea.dimensions;
  const bounds = boundsOf(original, settings.backing);
  if (!settings.composed) return clampWindow(settings.window, bounds, output);
  // A backing is chosen to show the whole picture, so that is what a composed frame does with it.
  if (bounds.beyond) return wholeWindow(bounds, output, settings.window);
  const grid = spreadOf(place, settings);
  // Seams are what matters most in a strip: it shows as much as it can, and its seams go round the marks.
  if (grid) return composeStrip(bounds, grid, original.marks, undefined, settings.window).window;
  return composeWindow(bounds, contentArea, original.marks, settings.window, wordsRoom).window;
}
