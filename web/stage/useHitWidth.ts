import { fingerTarget } from '../theme/antTheme.ts';
import { useFinger } from '../theme/useMedia.ts';

/** How much wider a handle is for the mouse than it looks, in CSS pixels. */
const mouseHelp = 13;

/** The width of the invisible line round a handle of the stage that can be taken hold of as well, in CSS pixels. */
export const useHitWidth = (side: number): number => (useFinger() ? fingerTarget - side : mouseHelp);
