/**
 * The connected parts of a picture that are lighter than all that surrounds them, at every level: each lies within its parent,
 * which is larger and darker. Parts are named by a pixel of theirs.
 */
export interface ComponentTree {
  /** For every pixel the part that it belongs to, or of a part's own pixel its parent. */
  parent: Int32Array;
  /** The pixels that name parts, each before its parent. */
  parts: Int32Array;
  /** By a part's own pixel: how many pixels it has, and how far it goes. */
  area: Int32Array;
  left: Uint16Array;
  top: Uint16Array;
  right: Uint16Array;
  bottom: Uint16Array;
}

/**
 * Builds the tree in one pass from the lightest pixel to the darkest with a union-find (Berger, Géraud, Levillain, Widynski,
 * Baillard and Bertin 2007). Pixels that touch at a corner are connected.
 *
 * @param levels one level for each pixel, row by row
 */
export function componentTree(levels: Uint8Array, width: number, height: number): ComponentTree {
  const count = width * height;
  const order = lightestFirst(levels);
  const parent = new Int32Array(count);
  // A rim of pixels that never come up saves every question whether a neighbour is there.
  const stride = width + 2;
  const root = new Int32Array(stride * (height + 2)).fill(-1);
  const beside = Int32Array.of(-stride - 1, -stride, -stride + 1, -1, 1, stride - 1, stride, stride + 1);
  for (let index = 0; index < count; index += 1) {
    const at = order[index] as number;
    const place = at + 2 * Math.floor(at / width) + stride + 1;
    parent[at] = at;
    root[place] = place;
    for (let side = 0; side < 8; side += 1) {
      let top = place + (beside[side] as number);
      if (root[top] === -1) continue;
      for (let up = root[top] as number; up !== top; up = root[top] as number) {
        root[top] = root[up] as number;
        top = root[top] as number;
      }
      if (top === place) continue;
      root[top] = place;
      parent[top - stride - 1 - 2 * (Math.floor(top / stride) - 1)] = at;
    }
  }
  // Of pixels of one level that are connected one names the part; the others, and all children, point at that one.
  for (let index = count - 1; index >= 0; index -= 1) {
    const at = order[index] as number;
    const above = parent[at] as number;
    const further = parent[above] as number;
    if (levels[further] === levels[above]) parent[at] = further;
  }
  return measured(levels, order, parent, width);
}

/** All pixels, the lightest first; those of one level in reading order. */
function lightestFirst(levels: Uint8Array): Int32Array {
  const from = new Int32Array(257);
  for (const level of levels) from[256 - level] = (from[256 - level] as number) + 1;
  for (let at = 1; at < 257; at += 1) from[at] = (from[at] as number) + (from[at - 1] as number);
  const order = new Int32Array(levels.length);
  for (let pixel = 0; pixel < levels.length; pixel += 1) {
    const bin = 255 - (levels[pixel] as number);
    const at = from[bin] as number;
    order[at] = pixel;
    from[bin] = at + 1;
  }
  return order;
}

function measured(levels: Uint8Array, order: Int32Array, parent: Int32Array, width: number): ComponentTree {
  const count = order.length;
  const area = new Int32Array(count).fill(1);
  const [left, top, right, bottom] = [0, 1, 2, 3].map(() => new Uint16Array(count)) as [
    Uint16Array,
    Uint16Array,
    Uint16Array,
    Uint16Array,
  ];
  for (let at = 0; at < count; at += 1) {
    left[at] = right[at] = at % width;
    top[at] = bottom[at] = Math.floor(at / width);
  }
  const parts: number[] = [];
  for (let index = 0; index < count; index += 1) {
    const at = order[index] as number;
    const above = parent[at] as number;
    if (above === at || levels[above] !== levels[at]) parts.push(at);
    if (above === at) continue;
    area[above] = (area[above] as number) + (area[at] as number);
    left[above] = Math.min(left[above] as number, left[at] as number);
    right[above] = Math.max(right[above] as number, right[at] as number);
    top[above] = Math.min(top[above] as number, top[at] as number);
    bottom[above] = Math.max(bottom[above] as number, bottom[at] as number);
  }
  return { parent, parts: Int32Array.from(parts), area, left, top, right, bottom };
}
