import type { FrameChange, FrameSettings } from '@inkwell/core/model';
import { isEqual, pickBy } from 'es-toolkit';

/** What says together where a window lies, and that nobody has to look at it: the server takes a window alone for one that was moved just now. */
const withWindow = ['window', 'composed', 'dimensions', 'carriedFrom'] as const;

/** What is set otherwise of a frame than it is saved: all that has to be sent of it. */
export function frameChange(saved: FrameSettings, settings: FrameSettings): FrameChange {
  const isMoved = withWindow.some((name) => !isEqual(saved[name], settings[name]));
  const isSent = (value: unknown, name: keyof FrameSettings) =>
    (isMoved && withWindow.some((one) => one === name)) || !isEqual(saved[name], value);
  return pickBy(settings, isSent);
}
