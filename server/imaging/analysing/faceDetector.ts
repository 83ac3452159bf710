import type { Point, Rect } from '@inkwell/core/geometry';
import type { Raster } from '@inkwell/core/planes';
import type { GraphModel } from '@tensorflow/tfjs-converter';
import * as tf from '@tensorflow/tfjs-core';
import { openModel, run } from './model.ts';

/** A face in a picture. */
export interface SeenFace {
  score: number;
  /** In pixels of the picture. */
  rect: Rect;
  /** Eyes, nose, mouth and ears, in that order, those on the left of the picture first. */
  landmarks: Point[];
}

/** Reports of less are noise. */
const leastScore = 0.3;
/** Of each report: its middle, from the one of its cell on, width, height, and six points. */
const shapeLength = 16;

/** It reports about cells of two sizes, in pixels, and so many times about each (Bazarevsky et al. 2019). */
const grids = [
  {
    cell: 16,
    each: 2,
    scores: 'StatefulPartitionedCall/functional_1/conv2d_33/BiasAdd',
    shapes: 'StatefulPartitionedCall/functional_1/conv2d_35/BiasAdd',
  },
  {
    cell: 32,
    each: 6,
    scores: 'StatefulPartitionedCall/functional_1/conv2d_34/BiasAdd',
    shapes: 'StatefulPartitionedCall/functional_1/conv2d_36/BiasAdd',
  },
];

/** Finds faces. It knows nobody: only where a face is. */
export class FaceDetector {
  private constructor(private readonly model: GraphModel) {}

  static async open(): Promise<FaceDetector> {
    return new FaceDetector(await openModel('faces'));
  }

  /** @param picture red, green and blue; its sides are multiples of 32 pixels */
  async find({ data, width, height }: Raster): Promise<SeenFace[]> {
    const input = tf.tensor4d(
      Float32Array.from(data, (value) => value / 127.5 - 1),
      [1, height, width, 3],
    );
    const names = grids.flatMap(({ scores, shapes }) => [scores, shapes]);
    const found = await run(this.model, { input }, names);
    return grids.flatMap(({ cell, each, scores, shapes }) => {
      const across = width / cell;
      return Array.from(found[scores] as Float32Array).flatMap((value, at) => {
        const score = 1 / (1 + Math.exp(-value));
        if (score < leastScore) return [];
        const place = Math.floor(at / each);
        const anchor = { x: cell * ((place % across) + 0.5), y: cell * (Math.floor(place / across) + 0.5) };
        const shape = (found[shapes] as Float32Array).subarray(at * shapeLength, (at + 1) * shapeLength);
        return [faceAt(anchor, Array.from(shape), score)];
      });
    });
  }
}

function faceAt(anchor: Point, shape: readonly number[], score: number): SeenFace {
  const [x = 0, y = 0, width = 0, height = 0, ...points] = shape;
  return {
    score,
    rect: { left: anchor.x + x - width / 2, top: anchor.y + y - height / 2, width, height },
    landmarks: Array.from({ length: points.length / 2 }, (_, at) => ({
      x: anchor.x + (points[2 * at] ?? 0),
      y: anchor.y + (points[2 * at + 1] ?? 0),
    })),
  };
}
