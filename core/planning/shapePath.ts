import type { Dimensions } from '../model/index.ts';
import type { RenderPlan } from './renderPlan.ts';

type Shape = NonNullable<RenderPlan['shape']>;

/**
 * The shape of a frame as an SVG path in output pixels.
 *
 * @param inset how far its edge lies inside of the file's, in output pixels
 */
export function shapePath({ kind, radius }: Pick<Shape, 'kind' | 'radius'>, inset: number, output: Dimensions): string {
  const right = output.width - inset;
  const bottom = output.height - inset;
  const round = kind === 'ellipse';
  const rx = Math.max(0, round ? output.width / 2 - inset : radius - inset);
  const ry = Math.max(0, round ? output.height / 2 - inset : radius - inset);
  const arc = (x: number, y: number) => `A${rx} ${ry} 0 0 1 ${x} ${y}`;
  return [
    `M${inset + rx} ${inset}H${right - rx}${arc(right, inset + ry)}`,
    `V${bottom - ry}${arc(right - rx, bottom)}H${inset + rx}${arc(inset, bottom - ry)}`,
    `V${inset + ry}${arc(inset + rx, inset)}Z`,
  ].join('');
}

/**
 * The ring of a frame as an SVG path, to be filled by the even-odd rule: everything between the file's edge and the
 * shape `width` inside of it, so that nothing else shows wherever a network's own mask runs.
 */
export function ringPath(shape: Pick<Shape, 'kind' | 'radius'>, width: number, output: Dimensions): string {
  return `M0 0H${output.width}V${output.height}H0Z ${shapePath(shape, width, output)}`;
}
