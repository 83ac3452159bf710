import type { Mark, Region, Window } from '@inkwell/core/model';

/** A window or a mark on its way. */
export type Moving =
  | { kind: 'window'; frameId: string; window: Window }
  | { kind: 'mark'; originalId: string; markId: string; region: Region };

/** The marks of an original with the one that is moved where it is now. */
export function withMoved(marks: readonly Mark[], moving: Moving | null): Mark[] {
  return marks.map((mark) =>
    moving?.kind === 'mark' && mark.id === moving.markId ? { ...mark, ...moving.region } : mark,
  );
}
