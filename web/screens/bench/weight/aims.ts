import type { Aim, AimName } from '@inkwell/core/model';

/** What the bytes of a file are spent on; `place` for what its place is for. */
export type AimChoice = 'place' | AimName;

export const choiceOf = (aim: Aim): AimName => (aim.kind === 'as good as fits' ? 'fits' : aim.level);
export const aimWords: Record<AimChoice, string> = {
  place: 'As their places are used',
  fits: 'As good as fits',
  flick: 'Light, holding Flick',
  look: 'Light, holding Look',
  glance: 'Light, holding Glance',
};
