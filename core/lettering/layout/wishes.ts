import type { Point, Rect } from '../../geometry/index.ts';
import type { Wish } from '../../model/index.ts';

/** Where a wish lies in a frame, and which point of an item lies there: 0 is the left or top, 1 the right or bottom. */
const anchors: Partial<Record<Wish, Point>> = {
  'top left': { x: 0, y: 0 },
  top: { x: 0.5, y: 0 },
  'top right': { x: 1, y: 0 },
  left: { x: 0, y: 0.5 },
  middle: { x: 0.5, y: 0.5 },
  right: { x: 1, y: 0.5 },
  'bottom left': { x: 0, y: 1 },
  bottom: { x: 0.5, y: 1 },
  'bottom right': { x: 1, y: 1 },
};

/** Off the margins and the middle an item looks as if it had slipped. */
const slipped = 0.06;

/** 0 where one of the edges or the middle of an item lies on that of its bounds, 1 where none comes near. */
function looseness(from: number, length: number, first: number, whole: number): number {
  const free = whole - length;
  if (free <= 0) return 0;
  const at = (from - first) / free;
  return Math.min(1, Math.min(Math.abs(at), Math.abs(at - 0.5), Math.abs(at - 1)) / 0.1);
}

/** How far an item stands from where it would like to, 0 where it is there, about 1 on the other side of the frame. */
export function distanceFromWish(box: Rect, wish: Wish, bounds: Rect, subject: Rect | null): number {
  const anchor = anchors[wish];
  if (anchor) {
    const x = box.left + box.width * anchor.x - (bounds.left + bounds.width * anchor.x);
    const y = box.top + box.height * anchor.y - (bounds.top + bounds.height * anchor.y);
    return Math.hypot(x / bounds.width, y / bounds.height);
  }
  if (wish === 'beside the subject' && subject) {
    const x = Math.max(subject.left - box.left - box.width, box.left - subject.left - subject.width, 0);
    const y = box.top + box.height / 2 - (subject.top + subject.height / 2);
    return Math.hypot(x / bounds.width, y / bounds.height);
  }
  return (
    slipped *
    (looseness(box.left, box.width, bounds.left, bounds.width) +
      looseness(box.top, box.height, bounds.top, bounds.height))
  );
}
