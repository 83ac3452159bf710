/** How much a turn of the wheel by one pixel tightens or loosens. */
const strength = 0.0011;

/** How many times wider a turn of the wheel makes what is shown. */
export const wheelFactor = ({ deltaY }: Pick<WheelEvent, 'deltaY'>): number => Math.exp(deltaY * strength);

/**
 * How drags, pinches and the wheel are listened to. What is moved by keys has keys of its own; the wheel scrolls nothing
 * besides, whether Ctrl is held or not.
 */
export const gestures = {
  eventOptions: { passive: false },
  drag: { pointer: { keys: false } },
  pinch: { modifierKey: null },
} as const;
