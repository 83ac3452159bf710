import type { Rect } from '../../geometry/index.ts';

const rounded = (value: number) => Math.round(value * 100) / 100;
const joined = (type: string, ...values: number[]) => type + values.map(rounded).join(' ');

/** The share of a radius at which the control points of a quarter of a circle lie. */
const arm = 0.5523;

/** A rectangle with round corners as SVG path data. */
export function roundedRectPath({ left, top, width, height }: Rect, radius: number): string {
  const [right, bottom] = [left + width, top + height];
  const r = Math.min(radius, width / 2, height / 2);
  if (r <= 0) {
    return [
      joined('M', left, top),
      joined('L', right, top),
      joined('L', right, bottom),
      joined('L', left, bottom),
      'Z',
    ].join('');
  }
  const k = r * (1 - arm);
  return [
    joined('M', left + r, top),
    joined('L', right - r, top),
    joined('C', right - k, top, right, top + k, right, top + r),
    joined('L', right, bottom - r),
    joined('C', right, bottom - k, right - k, bottom, right - r, bottom),
    joined('L', left + r, bottom),
    joined('C', left + k, bottom, left, bottom - k, left, bottom - r),
    joined('L', left, top + r),
    joined('C', left, top + k, left + k, top, left + r, top),
    'Z',
  ].join('');
}

export const ellipsePath = (box: Rect): string => {
  const [x, y] = [box.left + box.width / 2, box.top + box.height / 2];
  const [rx, ry] = [box.width / 2, box.height / 2];
  const [kx, ky] = [rx * arm, ry * arm];
  return [
    joined('M', x, y - ry),
    joined('C', x + kx, y - ry, x + rx, y - ky, x + rx, y),
    joined('C', x + rx, y + ky, x + kx, y + ry, x, y + ry),
    joined('C', x - kx, y + ry, x - rx, y + ky, x - rx, y),
    joined('C', x - rx, y - ky, x - kx, y - ry, x, y - ry),
    'Z',
  ].join('');
};

/** How long an arrow's head is, and how thick its shaft, as shares of its height. */
const head = 0.9;
const shaft = 0.34;

/** An arrow that points to the right. */
export function arrowPath({ left, top, width, height }: Rect): string {
  const right = left + width;
  const neck = right - Math.min(width, height * head);
  const middle = top + height / 2;
  const half = (height * shaft) / 2;
  return [
    joined('M', left, middle - half),
    joined('L', neck, middle - half),
    joined('L', neck, top),
    joined('L', right, middle),
    joined('L', neck, top + height),
    joined('L', neck, middle + half),
    joined('L', left, middle + half),
    'Z',
  ].join('');
}
