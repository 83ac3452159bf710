import { isStraightened, straightened } from '../geometry/index.ts';
import type { Finding } from '../model/index.ts';
import type { FrameToCheck } from './frameToCheck.ts';

/** A picture that leans in a frame that nobody has straightened, with the turn that would. */
export function tiltFinding({ tilt = null, settings }: FrameToCheck): Finding | null {
  const { window, composed } = settings;
  if (tilt === null || isStraightened(window)) return null;
  const leans = Math.abs(tilt).toFixed(1);
  return {
    kind: 'leaning',
    level: 'caution',
    // Mirrored, it leans to the other side.
    text: `The picture leans ${leans}° to the ${tilt > 0 === !window.mirror ? 'right' : 'left'}.`,
    measured: `${leans}°`,
    allowed: '0°',
    fix: {
      label: `Straighten by ${leans}°`,
      change: { composed, window: straightened(window, tilt) },
    },
  };
}
