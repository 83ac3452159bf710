import type { Rect } from '@inkwell/core/geometry';
import type { Raster } from '@inkwell/core/planes';
import type { GraphModel } from '@tensorflow/tfjs-converter';
import * as tf from '@tensorflow/tfjs-core';
import { openModel, run } from './model.ts';

/** An object in a picture. */
export interface SeenObject {
  /** The number of its class. */
  index: number;
  score: number;
  /** In pixels of the picture. */
  rect: Rect;
}

const classes = 80;
/** It reports about cells of so many pixels. */
const cell = 4;
/** Reports of less are noise. */
const leastScore = 0.3;

const nodes = {
  picture: 'tower_0/images',
  /** For each cell and class, how much it is the middle of such an object (Zhou, Wang and Krähenbühl 2019). */
  middles: 'tower_0/keypoints',
  /** For each cell, how far the object goes to its left, up, right and down, in pixels. */
  reaches: 'tower_0/wh',
} as const;

/** The sizes to which it enlarges what it has made smaller, as heights and widths, which are written into it for squares of 512 pixels. */
const enlargedSizes = [
  { node: 'tower_0/CenternetHead/c5_upsample/up_sampling2d/mul', by: 16 },
  { node: 'tower_0/CenternetHead/c4_upsample/up_sampling2d_1/mul', by: 8 },
  { node: 'tower_0/CenternetHead/c3_upsample/up_sampling2d_2/mul', by: cell },
];

/** Finds everyday objects. */
export class ObjectDetector {
  private constructor(private readonly model: GraphModel) {}

  static async open(): Promise<ObjectDetector> {
    return new ObjectDetector(await openModel('objects'));
  }

  /** @param picture red, green and blue; its sides are multiples of 32 pixels */
  async find({ data, width, height }: Raster): Promise<SeenObject[]> {
    const inputs: Record<string, tf.Tensor> = {
      [nodes.picture]: tf.tensor4d(new Float32Array(data), [1, height, width, 3]),
    };
    for (const { node, by } of enlargedSizes) inputs[node] = tf.tensor1d([height / by, width / by], 'int32');
    const found = await run(this.model, inputs, [nodes.middles, nodes.reaches]);
    return objectsAt(found[nodes.middles], found[nodes.reaches], { width: width / cell, height: height / cell });
  }
}

/** The objects at the cells that are more of a middle than those round them. */
function objectsAt(
  middles: Float32Array,
  reaches: Float32Array,
  { width, height }: { width: number; height: number },
): SeenObject[] {
  const scoreAt = (x: number, y: number, index: number) =>
    x < 0 || y < 0 || x >= width || y >= height ? 0 : (middles[(y * width + x) * classes + index] as number);
  const isTop = (x: number, y: number, index: number, score: number) =>
    [-1, 0, 1].every((down) => [-1, 0, 1].every((across) => scoreAt(x + across, y + down, index) <= score));
  const objects: SeenObject[] = [];
  for (let at = 0; at < middles.length; at += 1) {
    const score = middles[at] as number;
    if (score < leastScore) continue;
    const [index, place] = [at % classes, Math.floor(at / classes)];
    const [x, y] = [place % width, Math.floor(place / width)];
    if (!isTop(x, y, index, score)) continue;
    const [left = 0, up = 0, right = 0, down = 0] = reaches.subarray(4 * place, 4 * place + 4);
    if (left + right <= 0 || up + down <= 0) continue;
    objects.push({
      index,
      score,
      rect: { left: cell * x - left, top: cell * y - up, width: left + right, height: up + down },
    });
  }
  return objects;
}
