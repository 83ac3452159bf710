import type { Hands, Lettering, Mark, Region, Window } from '@inkwell/core/model';

/** A window or a mark on its way, or words while they are written. */
export type Moving =
  | { kind: 'window'; frameId: string; window: Window }
  | { kind: 'mark'; originalId: string; markId: string; region: Region }
  | { kind: 'lettering'; projectId: string; lettering: Lettering }
  | { kind: 'hands'; frameId: string; hands: Hands };

/** The marks of an original with the one that is moved where it is now. */
export function withMoved(marks: readonly Mark[], moving: Moving | null): Mark[] {
  return marks.map((mark) =>
    moving?.kind === 'mark' && mark.id === moving.markId ? { ...mark, ...moving.region } : mark,
  );
}
