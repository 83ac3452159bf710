import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { type Point, type Rect, scaledRect } from '@inkwell/core/geometry';
import backend from '@tensorflow/tfjs-backend-wasm';
import converter from '@tensorflow/tfjs-converter';
import * as tf from '@tensorflow/tfjs-core';

/** The sides of the square pictures that the detectors see, in pixels. */
export const objectSide = 512;
export const faceSide = 256;

/** An object in a square picture. */
export interface SeenObject {
  /** The number of its class. */
  index: number;
  score: number;
  /** In shares of the picture's side. */
  rect: Rect;
}

/** A face in a square picture. */
export interface SeenFace {
  score: number;
  /** In shares of the picture's side. */
  rect: Rect;
  /** Eyes, nose, mouth and ears, in that order, those on the left of the picture first. */
  landmarks: Point[];
}

/** Reports of less are noise. */
const leastScore = 0.3;

/** Finds everyday objects and faces, with WebAssembly on one core. It knows nobody: only where something is. */
export class Detectors {
  private constructor(
    private readonly objects: converter.GraphModel,
    private readonly faces: converter.GraphModel,
  ) {}

  /** Loads the weights, which ship with the program. @throws where they are not there or cannot be used */
  static async open(): Promise<Detectors> {
    const require = createRequire(import.meta.url);
    const root = dirname(require.resolve('@tensorflow/tfjs-backend-wasm/package.json'));
    backend.setWasmPaths(`${join(root, 'wasm-out')}/`);
    backend.setThreadsCount(1);
    await tf.setBackend('wasm');
    return new Detectors(await loaded('objects'), await loaded('faces'));
  }

  /** @param pixels red, green and blue of `objectSide` by `objectSide` pixels */
  async objectsIn(pixels: Uint8Array): Promise<SeenObject[]> {
    const input = tf.tensor4d(Float32Array.from(pixels), [1, objectSide, objectSide, 3]);
    const output = this.objects.execute(input, ['tower_0/detections']) as tf.Tensor3D;
    const [rows = []] = await output.array();
    tf.dispose([input, output]);
    return rows.flatMap(([left = 0, top = 0, right = 0, bottom = 0, score = 0, index = 0]) =>
      score >= leastScore && right > left && bottom > top
        ? [{ index, score, rect: shareOf({ left, top, width: right - left, height: bottom - top }, objectSide) }]
        : [],
    );
  }

  /** @param pixels red, green and blue of `faceSide` by `faceSide` pixels */
  async facesIn(pixels: Uint8Array): Promise<SeenFace[]> {
    const input = tf.tensor4d(
      Float32Array.from(pixels, (value) => value / 127.5 - 1),
      [1, faceSide, faceSide, 3],
    );
    const outputs = this.faces.execute(input) as tf.Tensor[];
    // Scores and shapes of the large faces, then of the small ones: their sizes tell which is which.
    const [largeScores, smallScores, largeShapes, smallShapes] = [...outputs].sort((a, b) => a.size - b.size);
    if (!largeScores || !smallScores || !largeShapes || !smallShapes)
      throw new Error('The detector of faces is another one.');
    const scores = [...(await smallScores.data()), ...(await largeScores.data())];
    const shapes = [...(await smallShapes.data()), ...(await largeShapes.data())];
    tf.dispose([input, ...outputs]);
    return anchors.flatMap((anchor, at) => {
      const score = 1 / (1 + Math.exp(-(scores[at] ?? 0)));
      return score >= leastScore ? [faceAt(anchor, shapes.slice(at * shapeLength, (at + 1) * shapeLength), score)] : [];
    });
  }
}

async function loaded(name: 'objects' | 'faces'): Promise<converter.GraphModel> {
  const folder = join(import.meta.dirname, 'weights');
  const model: tf.io.ModelJSON = JSON.parse(await readFile(join(folder, `${name}.json`), 'utf8'));
  const weights = await readFile(join(folder, `${name}.bin`));
  return converter.loadGraphModel({
    load: async () => ({
      modelTopology: model.modelTopology,
      ...(model.signature ? { signature: model.signature } : {}),
      weightSpecs: model.weightsManifest.flatMap(({ weights: specs }) => specs),
      weightData: weights.buffer.slice(weights.byteOffset, weights.byteOffset + weights.length) as ArrayBuffer,
    }),
  });
}

const shareOf = (rect: Rect, side: number): Rect => scaledRect(rect, { x: 1 / side, y: 1 / side });

/** Middle, width, height, and six points. */
const shapeLength = 16;

/** The points about which the detector of faces reports: two at every 16 pixels, six at every 32 (Bazarevsky et al. 2019). */
const anchors = [
  { step: 16, each: 2 },
  { step: 32, each: 6 },
].flatMap(({ step, each }) => {
  const count = faceSide / step;
  return Array.from({ length: count * count * each }, (_, at) => {
    const cell = Math.floor(at / each);
    return { x: step * ((cell % count) + 0.5), y: step * (Math.floor(cell / count) + 0.5) };
  });
});

function faceAt(anchor: Point, shape: readonly number[], score: number): SeenFace {
  const [x = 0, y = 0, width = 0, height = 0, ...points] = shape;
  const rect = { left: anchor.x + x - width / 2, top: anchor.y + y - height / 2, width, height };
  return {
    score,
    rect: shareOf(rect, faceSide),
    landmarks: Array.from({ length: points.length / 2 }, (_, at) => ({
      x: (anchor.x + (points[2 * at] ?? 0)) / faceSide,
      y: (anchor.y + (points[2 * at + 1] ?? 0)) / faceSide,
    })),
  };
}
