import type { Hands, Lettering, Mark, Region, Window } from '@inkwell/core/model';
import type { Kind } from './kinds.ts';

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

/** Whether a row is being moved, or written. */
export function isHeld(moving: Moving | null, kind: Kind, id: string): boolean {
  switch (moving?.kind) {
    case 'window':
    case 'hands':
      return kind === 'frames' && id === moving.frameId;
    case 'mark':
      return kind === 'originals' && id === moving.originalId;
    case 'lettering':
      return kind === 'projects' && id === moving.projectId;
    default:
      return false;
  }
}
