/** How much a turn of the wheel by one pixel tightens or loosens. */
const strength = 0.0011;

/** How many times wider a turn of the wheel makes what is shown. */
export const wheelFactor = ({ deltaY }: Pick<WheelEvent, 'deltaY'>): number => Math.exp(deltaY * strength);
