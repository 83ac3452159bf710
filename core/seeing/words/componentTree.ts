/**
 * The connected parts of a picture that are lighter than all that surrounds them, at every level: each lies within its parent,
 * which is larger and darker. Parts have numbers, each a smaller one than its parent; the last part is the whole picture.
 */
export interface ComponentTree {
  count: number;
  /** The part in which a part lies; that of the whole picture is itself. */
  parent: Int32Array;
  /** The level of its darkest pixels, one of these pixels, how many pixels it has in all, and how far it goes. */
  level: Uint8Array;
  pixel: Int32Array;
  area: Int32Array;
  left: Uint16Array;
  top: Uint16Array;
  right: Uint16Array;
  bottom: Uint16Array;
}

/**
 * Builds the tree by flooding from the lightest pixels to the darkest, in a time that grows with the number of pixels alone
 * (Nistér and Stewénius 2008). Pixels that touch at a corner are connected.
 *
 * @param levels one level for each pixel, row by row
 */
export function componentTree(levels: Uint8Array, width: number, height: number): ComponentTree {
  const shore = new Shore(levels, width, height);
  const open = new OpenParts(levels.length);
  let at = 0;
  shore.visit(at);
  open.start(levels[at] as number);
  for (;;) {
    const lighter = shore.lighterBeside(at);
    if (lighter >= 0) {
      at = lighter;
      open.start(levels[at] as number);
      continue;
    }
    open.add(at, at % width, Math.floor(at / width));
    at = shore.lightest(levels[at] as number);
    if (at < 0) return open.finished();
    open.descend(levels[at] as number);
  }
}

/** The pixels that the flood has seen and not yet taken, by level. */
class Shore {
  /** A rim of places that count as seen saves every question whether there is a neighbour. */
  private readonly seen: Uint8Array;
  private readonly placeSteps: Int32Array;
  /** To the neighbours of a pixel. */
  private readonly steps: Int32Array;
  /** The last pixel of each level that waits, and after each pixel the one that waited before it; -1 for none. */
  private readonly last = new Int32Array(256).fill(-1);
  private readonly before: Int32Array;

  constructor(
    private readonly levels: Uint8Array,
    private readonly width: number,
    height: number,
  ) {
    const stride = width + 2;
    this.before = new Int32Array(levels.length);
    this.seen = new Uint8Array(stride * (height + 2)).fill(1);
    for (let row = 1; row <= height; row += 1) this.seen.fill(0, row * stride + 1, row * stride + 1 + width);
    const around = (row: number) => [-row - 1, -row, -row + 1, -1, 1, row - 1, row, row + 1];
    this.steps = Int32Array.from(around(width));
    this.placeSteps = Int32Array.from(around(stride));
  }

  private placeOf(at: number): number {
    return at + 2 * Math.floor(at / this.width) + this.width + 3;
  }

  visit(at: number): void {
    this.seen[this.placeOf(at)] = 1;
  }

  /** Sees the neighbours of a pixel. @returns the first that is lighter, for which the pixel itself has to wait; -1 where none is */
  lighterBeside(at: number): number {
    const level = this.levels[at] as number;
    const middle = this.placeOf(at);
    for (let side = 0; side < 8; side += 1) {
      const place = middle + (this.placeSteps[side] as number);
      if (this.seen[place] === 1) continue;
      this.seen[place] = 1;
      const other = at + (this.steps[side] as number);
      if ((this.levels[other] as number) > level) {
        this.wait(at, level);
        return other;
      }
      this.wait(other, this.levels[other] as number);
    }
    return -1;
  }

  private wait(at: number, level: number): void {
    this.before[at] = this.last[level] as number;
    this.last[level] = at;
  }

  /** Takes the lightest pixel that waits, of which none is lighter than `level`; -1 where none waits. */
  lightest(level: number): number {
    for (let below = level; below >= 0; below -= 1) {
      const at = this.last[below] as number;
      if (at < 0) continue;
      this.last[below] = this.before[at] as number;
      return at;
    }
    return -1;
  }
}

/** What is known of a part that still grows. */
interface OpenPart {
  level: number;
  pixel: number;
  area: number;
  left: number;
  top: number;
  right: number;
  bottom: number;
  /** The finished part that was put into it last; -1 for none. */
  lastChild: number;
}

/** The parts that still grow, each darker than the next one, and those that are finished. */
class OpenParts {
  private readonly open: OpenPart[] = [];
  private readonly tree: ComponentTree;
  /** After each finished part the one that was put into the same part before it; -1 for none. */
  private readonly childBefore: Int32Array;

  constructor(most: number) {
    this.childBefore = new Int32Array(most);
    this.tree = {
      count: 0,
      parent: new Int32Array(most),
      level: new Uint8Array(most),
      pixel: new Int32Array(most),
      area: new Int32Array(most),
      left: new Uint16Array(most),
      top: new Uint16Array(most),
      right: new Uint16Array(most),
      bottom: new Uint16Array(most),
    };
  }

  private get lightest(): OpenPart {
    return this.open[this.open.length - 1] as OpenPart;
  }

  start(level: number): void {
    const nowhere = { left: Number.POSITIVE_INFINITY, top: Number.POSITIVE_INFINITY, right: -1, bottom: -1 };
    this.open.push({ level, pixel: -1, area: 0, ...nowhere, lastChild: -1 });
  }

  /** Adds a pixel of its level to the lightest part. */
  add(pixel: number, x: number, y: number): void {
    grow(this.lightest, { area: 1, left: x, top: y, right: x, bottom: y });
    this.lightest.pixel = pixel;
  }

  /** Finishes all parts that are lighter than `level`, and goes on with one of that level. */
  descend(level: number): void {
    while (this.lightest.level > level) {
      const part = this.lightest;
      const child = this.finish(part);
      const darker = this.open[this.open.length - 2];
      if (!darker || darker.level < level) {
        // The same part goes on, with darker pixels.
        part.level = level;
        this.childBefore[child] = -1;
        part.lastChild = child;
        return;
      }
      this.open.pop();
      grow(darker, part);
      this.childBefore[child] = darker.lastChild;
      darker.lastChild = child;
    }
  }

  /** Gives a part its number, which its children get to know. */
  private finish(part: OpenPart): number {
    const { tree } = this;
    const number = tree.count;
    tree.count += 1;
    tree.parent[number] = number;
    tree.level[number] = part.level;
    tree.pixel[number] = part.pixel;
    tree.area[number] = part.area;
    tree.left[number] = part.left;
    tree.top[number] = part.top;
    tree.right[number] = part.right;
    tree.bottom[number] = part.bottom;
    for (let child = part.lastChild; child >= 0; child = this.childBefore[child] as number) tree.parent[child] = number;
    return number;
  }

  /** The tree, once all pixels are added. */
  finished(): ComponentTree {
    this.finish(this.lightest);
    return this.tree;
  }
}

function grow(part: OpenPart, by: Omit<OpenPart, 'level' | 'pixel' | 'lastChild'>): void {
  part.area += by.area;
  part.left = Math.min(part.left, by.left);
  part.top = Math.min(part.top, by.top);
  part.right = Math.max(part.right, by.right);
  part.bottom = Math.max(part.bottom, by.bottom);
}
