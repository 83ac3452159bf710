import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import backend from '@tensorflow/tfjs-backend-wasm';
import converter from '@tensorflow/tfjs-converter';
import * as tf from '@tensorflow/tfjs-core';

/** Makes WebAssembly ready to run detectors, on one core. */
export async function startBackend(): Promise<void> {
  const require = createRequire(import.meta.url);
  const root = dirname(require.resolve('@tensorflow/tfjs-backend-wasm/package.json'));
  backend.setWasmPaths(`${join(root, 'wasm-out')}/`);
  backend.setThreadsCount(1);
  await tf.setBackend('wasm');
}

interface StoredModel extends tf.io.ModelJSON {
  modelTopology: { node: { op: string; attr?: Record<string, unknown> }[] };
}

/**
 * Loads a detector whose weights ship with the program. It then takes pictures of any size: all that it does is done at every
 * place of a picture alike.
 *
 * @throws where they are not there or cannot be used
 */
export async function openModel(name: 'objects' | 'faces'): Promise<converter.GraphModel> {
  const folder = join(import.meta.dirname, 'weights');
  const model: StoredModel = JSON.parse(await readFile(join(folder, `${name}.json`), 'utf8'));
  for (const { op, attr } of model.modelTopology.node) {
    if (op === 'Placeholder') delete attr?.shape;
  }
  const weights = await readFile(join(folder, `${name}.bin`));
  return converter.loadGraphModel({
    load: async () => ({
      modelTopology: model.modelTopology,
      weightSpecs: model.weightsManifest.flatMap(({ weights: specs }) => specs),
      weightData: weights.buffer.slice(weights.byteOffset, weights.byteOffset + weights.length) as ArrayBuffer,
    }),
  });
}

/** What a model gives at a picture, as flat numbers, by the names of its nodes. @param inputs tensors, which are disposed of */
export async function run<Name extends string>(
  model: converter.GraphModel,
  inputs: Record<string, tf.Tensor>,
  names: readonly Name[],
): Promise<Record<Name, Float32Array>> {
  const outputs = model.execute(inputs, [...names]) as tf.Tensor[];
  const values = await Promise.all(outputs.map((output) => output.data<'float32'>()));
  tf.dispose([...Object.values(inputs), ...outputs]);
  return Object.fromEntries(names.map((name, at) => [name, values[at]])) as Record<Name, Float32Array>;
}
