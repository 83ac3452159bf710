import type { SetOff } from '../model/index.ts';
import { farthestFrom } from './contrast.ts';

/** What sets letters of a colour off from any picture: a surface under them, of black or white, whichever is farther from theirs. */
export const plateUnder = (colour: string): Extract<SetOff, { kind: 'plate' }> => ({
  kind: 'plate',
  padding: 0.3,
  rounding: 0.2,
  colour: farthestFrom(colour),
  opacity: 1,
});

/** The same as a line round them. */
export const outlineRound = (colour: string): Extract<SetOff, { kind: 'outline' }> => ({
  kind: 'outline',
  width: 0.12,
  colour: farthestFrom(colour),
});
