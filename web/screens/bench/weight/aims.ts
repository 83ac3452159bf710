import type { Aim, FidelityTier } from '@inkwell/core/model';

/** What the bytes of a file are spent on; `place` for what its place is for. */
export type AimChoice = 'place' | 'fits' | FidelityTier;

export const aimOf: Record<Exclude<AimChoice, 'place'>, Aim> = {
  fits: { kind: 'as good as fits' },
  flick: { kind: 'no heavier than it needs', level: 'flick' },
  look: { kind: 'no heavier than it needs', level: 'look' },
  glance: { kind: 'no heavier than it needs', level: 'glance' },
};
export const aims = Object.keys(aimOf) as (keyof typeof aimOf)[];
export const choiceOf = (aim: Aim): Exclude<AimChoice, 'place'> =>
  aim.kind === 'as good as fits' ? 'fits' : aim.level;
export const aimWords: Record<AimChoice, string> = {
  place: 'As their places are used',
  fits: 'As good as fits',
  flick: 'Light, holding Flick',
  look: 'Light, holding Look',
  glance: 'Light, holding Glance',
};
