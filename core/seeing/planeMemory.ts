import { hexToBytes } from '@noble/hashes/utils.js';
import { planesCode } from './assembly/planesCode.ts';
import type { Plane } from './raster.ts';

type Pointer = number;

/** What assembly/planes exports; it says there what each does. */
interface Planes {
  memory: { readonly buffer: ArrayBuffer; grow(pages: number): number };
  luminance(from: Pointer, channels: number, width: number, height: number, to: Pointer): void;
  sharpen(
    plane: Pointer,
    width: number,
    height: number,
    half: Pointer,
    reach: number,
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
    reach: number,
    share: number,
    calm: number,
    line: Pointer,
    low: Pointer,
    high: Pointer,
  ): void;
  colourDifferences(
    from: Pointer,
    channels: number,
    width: number,
    height: number,
    toBlue: Pointer,
    toRed: Pointer,
  ): void;
  calmBlocks(
    a: Pointer,
    b: Pointer,
    width: number,
    height: number,
    range: number,
    toMoved: Pointer,
    toCalm: Pointer,
  ): void;
  blockError(a: Pointer, b: Pointer, width: number, height: number, masking: number, cells: Pointer): number;
  coarsen(plane: Pointer, width: number, height: number, to: Pointer): void;
  halve(plane: Pointer, width: number, height: number, to: Pointer): void;
  sumUp(values: Pointer, width: number, rows: number, to: Pointer): void;
  likeness(
    a: Pointer,
    b: Pointer,
    width: number,
    height: number,
    half: Pointer,
    reach: number,
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
    Instance: new (module: object) => { exports: Planes };
  };
};

let compiled: Planes | null = null;
function thePlanes(): Planes {
  compiled ??= new engine.WebAssembly.Instance(new engine.WebAssembly.Module(hexToBytes(planesCode))).exports;
  return compiled;
}

const page = 65_536;
const lane = 4;
const bytes = 4;

/** Floats from one row of a plane to the next, as the module lays them. */
const strideOf = (width: number) => Math.ceil(width / lane) * lane;

/** Room in the module's memory for one piece of work: first everything is asked for, then it is filled. */
export class PlaneMemory {
  readonly planes = thePlanes();
  /** The first page is the module's own. */
  private end = page;

  /** Room for so many floats or whole numbers. */
  take(count: number): Pointer {
    const start = this.end;
    this.end += Math.ceil(count / lane) * lane * bytes;
    return start;
  }

  takePlane({ width, height }: { width: number; height: number }): Pointer {
    return this.take(strideOf(width) * height);
  }

  /** Makes sure that all that was asked for is there. */
  open(): void {
    const { memory } = this.planes;
    const missing = this.end + page - memory.buffer.byteLength;
    if (missing > 0) memory.grow(Math.ceil(missing / page));
  }

  octets(start: Pointer, count: number): Uint8Array {
    return new Uint8Array(this.planes.memory.buffer, start, count);
  }

  floats(start: Pointer, count: number): Float32Array {
    return new Float32Array(this.planes.memory.buffer, start, count);
  }

  doubles(start: Pointer, count: number): Float64Array {
    return new Float64Array(this.planes.memory.buffer, start, count);
  }

  wholes(start: Pointer, count: number): Int32Array {
    return new Int32Array(this.planes.memory.buffer, start, count);
  }

  /** How many floats a plane takes here. */
  static lengthOf({ width, height }: { width: number; height: number }): number {
    return strideOf(width) * height;
  }

  put(start: Pointer, { data, width, height }: Plane): void {
    const stride = strideOf(width);
    const into = this.floats(start, stride * height);
    if (stride === width) into.set(data);
    else for (let y = 0; y < height; y += 1) into.set(data.subarray(y * width, (y + 1) * width), y * stride);
  }

  get(start: Pointer, { width, height }: { width: number; height: number }): Plane {
    const stride = strideOf(width);
    const from = this.floats(start, stride * height);
    if (stride === width) return { data: from.slice(), width, height };
    const data = new Float32Array(width * height);
    for (let y = 0; y < height; y += 1) data.set(from.subarray(y * stride, y * stride + width), y * width);
    return { data, width, height };
  }
}
