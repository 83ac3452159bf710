import type { Finding } from '../model/index.ts';
import type { FrameToCheck } from './frameToCheck.ts';

/** A picture that leans in a frame that nobody has straightened, with the turn that would. */
export function tiltFinding({ tilt = null, settings }: FrameToCheck): Finding | null {
  const { window, composed } = settings;
  // Whoever has turned it by anything but a quarter has looked at it.
  if (tilt === null || window.turn % 90 !== 0) return null;
  // A mirrored picture leans to the other side, but is turned before it is mirrored.
  const leans = Math.abs(tilt).toFixed(1);
  const turn = window.turn - tilt;
  return {
    kind: 'leaning',
    level: 'caution',
    text: `The picture leans ${leans}° to the ${tilt > 0 === !window.mirror ? 'right' : 'left'}.`,
    measured: `${leans}°`,
    allowed: '0°',
    fix: {
      label: `Straighten by ${leans}°`,
      change: { composed, window: { ...window, turn: turn <= -180 ? turn + 360 : turn > 180 ? turn - 360 : turn } },
    },
  };
}
