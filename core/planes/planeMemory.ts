import { hexToBytes } from '@noble/hashes/utils.js';
import { kernelCode } from './assembly/kernelCode.ts';
import type { Plane } from './raster.ts';

/** Where something lies in the module's memory, in bytes. */
export type Pointer = number;

/** What assembly/kernels exports; it says there what each does. They are called by name in kernels.ts. */
export interface Kernels {
  memory: { readonly buffer: ArrayBuffer; grow(pages: number): number };
  luminance(from: Pointer, channels: number, width: number, height: number, to: Pointer): void;
  sharpen(
    plane: Pointer,
    width: number,
    height: number,
    half: Pointer,
    radius: number,
    strength: number,
    threshold: number,
    line: Pointer,
    across: Pointer,
    to: Pointer,
  ): void;
  lookUp(plane: Pointer, count: number, table: Pointer, entries: number, times: number): void;
  scale(
    plane: Pointer,
    width: number,
    height: number,
    downFirst: Pointer,
    downWeights: Pointer,
    downTaps: number,
    outHeight: number,
    acrossFirst: Pointer,
    acrossWeights: Pointer,
    acrossTaps: number,
    outWidth: number,
    before: number,
    after: number,
    line: Pointer,
    to: Pointer,
  ): void;
  limit(
    plane: Pointer,
    plain: Pointer,
    width: number,
    height: number,
    radius: number,
    share: number,
    calm: number,
    line: Pointer,
    low: Pointer,
    high: Pointer,
  ): void;
  lightAndColours(
    from: Pointer,
    channels: number,
    width: number,
    height: number,
    toLight: Pointer,
    toBlue: Pointer,
    toRed: Pointer,
  ): void;
  recolour(
    from: Pointer,
    channels: number,
    count: number,
    luminance: Pointer,
    lighter: number,
    darker: number,
    saturation: number,
    to: Pointer,
  ): void;
  calmBlocks(
    a: Pointer,
    b: Pointer,
    width: number,
    height: number,
    range: number,
    line: Pointer,
    toMoved: Pointer,
    toCalm: Pointer,
  ): void;
  blockError(a: Pointer, b: Pointer, width: number, height: number, masking: number, cells: Pointer): number;
  coarsen(plane: Pointer, width: number, height: number, to: Pointer): void;
  halve(plane: Pointer, width: number, height: number, to: Pointer): void;
  sumUp(values: Pointer, width: number, rows: number, to: Pointer): void;
  ssimMap(
    a: Pointer,
    b: Pointer,
    width: number,
    height: number,
    half: Pointer,
    first: number,
    step: number,
    rows: number,
    line: Pointer,
    whole: boolean,
    to: Pointer,
  ): void;
}

/** Part of the language's engines everywhere, but not of its own type library. */
const engine = globalThis as unknown as {
  WebAssembly: {
    Module: new (code: Uint8Array) => object;
    Instance: new (module: object) => { exports: Kernels };
  };
};

let compiled: Kernels | null = null;
function theKernels(): Kernels {
  compiled ??= new engine.WebAssembly.Instance(new engine.WebAssembly.Module(hexToBytes(kernelCode))).exports;
  return compiled;
}

const page = 65_536;
const lane = 4;
const bytes = 4;

/** Floats from one row of a plane to the next, as the module lays them. */
const strideOf = (width: number) => Math.ceil(width / lane) * lane;

/** The first page is the module's own. */
let taken = page;

/**
 * Does a piece of work in memory of its own: it lies after that of the work that it is part of, and is free for other work
 * afterwards. Nothing that the memory holds may be kept.
 */
export function inPlaneMemory<Result>(work: (arena: PlaneMemory) => Result): Result {
  const begin = taken;
  try {
    return work(new PlaneMemory(begin));
  } finally {
    taken = begin;
  }
}

/** Memory of the module for one piece of work: first everything is reserved, then it is committed, then it is filled. */
export class PlaneMemory {
  readonly kernels = theKernels();

  constructor(private end: number) {}

  /** Reserves so many floats or whole numbers. */
  reserve(count: number): Pointer {
    const start = this.end;
    this.end += Math.ceil(count / lane) * lane * bytes;
    return start;
  }

  reservePlane({ width, height }: { width: number; height: number }): Pointer {
    return this.reserve(strideOf(width) * height);
  }

  /** Makes sure that all that was reserved is there, and that no other work takes it meanwhile. */
  commit(): void {
    const { memory } = this.kernels;
    const missing = this.end + page - memory.buffer.byteLength;
    if (missing > 0) memory.grow(Math.ceil(missing / page));
    taken = this.end;
  }

  octets(start: Pointer, count: number): Uint8Array {
    return new Uint8Array(this.kernels.memory.buffer, start, count);
  }

  floats(start: Pointer, count: number): Float32Array {
    return new Float32Array(this.kernels.memory.buffer, start, count);
  }

  doubles(start: Pointer, count: number): Float64Array {
    return new Float64Array(this.kernels.memory.buffer, start, count);
  }

  wholes(start: Pointer, count: number): Int32Array {
    return new Int32Array(this.kernels.memory.buffer, start, count);
  }

  /** How many floats a plane takes here. */
  static lengthOf({ width, height }: { width: number; height: number }): number {
    return strideOf(width) * height;
  }

  put(start: Pointer, { data, width, height }: Plane): void {
    const stride = strideOf(width);
    const into = this.floats(start, stride * height);
    for (let y = 0; y < height; y += 1) into.set(data.subarray(y * width, (y + 1) * width), y * stride);
  }

  get(start: Pointer, { width, height }: { width: number; height: number }): Plane {
    const stride = strideOf(width);
    const from = this.floats(start, stride * height);
    const data = new Float32Array(width * height);
    for (let y = 0; y < height; y += 1) data.set(from.subarray(y * stride, y * stride + width), y * width);
    return { data, width, height };
  }
}
