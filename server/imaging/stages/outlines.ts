import type { Rect } from '@inkwell/core/geometry';
import type { LetterLayer } from '@inkwell/core/model';
import { type Canvas, createCanvas, Path2D, type SKRSContext2D } from '@napi-rs/canvas';

export type OutlineLayer = Extract<LetterLayer, { kind: 'outline' }>;

/** Pixels of a picture to one of a layer. */
interface Scale {
  x: number;
  y: number;
}

/**
 * Paints outlines over each other, on nothing.
 *
 * @param rect what of the picture is painted, in whole pixels
 * @returns red, green, blue and alpha, row by row, each colour multiplied by its alpha
 */
export function painted(layers: readonly OutlineLayer[], rect: Rect, scale: Scale): Buffer {
  const { canvas, brush } = sheet(rect);
  for (const layer of layers) {
    if (layer.opacity === 1 && layer.blur === 0) paint(brush, layer, rect, scale);
    else layOn(brush, layer, rect, scale);
  }
  return canvas.data();
}

function sheet({ width, height }: Rect): { canvas: Canvas; brush: SKRSContext2D } {
  const canvas = createCanvas(width, height);
  return { canvas, brush: canvas.getContext('2d') };
}

function paint(brush: SKRSContext2D, { path, colour, stroke }: OutlineLayer, { left, top }: Rect, { x, y }: Scale) {
  const outline = new Path2D(path);
  brush.setTransform(x, 0, 0, y, -left, -top);
  brush.fillStyle = colour;
  brush.fill(outline, 'nonzero');
  if (stroke === 0) return;
  brush.strokeStyle = colour;
  brush.lineWidth = stroke;
  brush.lineJoin = 'round';
  brush.stroke(outline);
}

/** Paints a layer by itself and lays it on as a whole: a line that lies half over what it runs round would show twice. */
function layOn(brush: SKRSContext2D, layer: OutlineLayer, rect: Rect, scale: Scale) {
  const alone = sheet(rect);
  paint(alone.brush, layer, rect, scale);
  brush.resetTransform();
  brush.globalAlpha = layer.opacity;
  if (layer.blur > 0) brush.filter = `blur(${layer.blur * Math.sqrt(scale.x * scale.y)}px)`;
  brush.drawImage(alone.canvas, 0, 0);
  brush.globalAlpha = 1;
  brush.filter = 'none';
}
