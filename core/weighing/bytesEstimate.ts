import { type CurvePoint, readCurve } from './qualityCurve.ts';

/**
 * What a full encoding is expected to weigh: the curve of sketches, times what full encodings were found to weigh of a sketch,
 * which moves slowly from one quality to the next.
 */
export class BytesEstimate {
  /** Ascending by quality. */
  private readonly curve: CurvePoint[] = [];
  /** What full encodings weighed, ascending by quality. */
  private readonly known: CurvePoint[] = [];
  /** What one is supposed to weigh, until the next one is known. */
  private supposed: CurvePoint | null = null;

  get sketches(): number {
    return this.curve.length;
  }

  isSketchedAt(quality: number): boolean {
    return this.curve.some((point) => point.quality === quality);
  }

  /** Takes in rough bytes. There has to be at least one before anything is asked. */
  sketch(quality: number, bytes: number): void {
    insert(this.curve, { quality, bytes });
  }

  /** Takes in about what a full encoding weighs, until the next one is known. */
  suppose(quality: number, bytes: number): void {
    this.supposed = { quality, bytes };
  }

  /** Takes in what a full encoding came out as. */
  learn(quality: number, bytes: number): void {
    this.supposed = null;
    insert(this.known, { quality, bytes });
  }

  at(quality: number): number {
    return readCurve(this.curve, quality) * Math.exp(this.ratioAt(quality));
  }

  /** The logarithm of full over sketched bytes: read between two that are known or supposed, and beyond as of the nearest. */
  private ratioAt(quality: number): number {
    const points = [...this.known];
    if (this.supposed) insert(points, this.supposed);
    const above = points.find((point) => point.quality >= quality);
    const below = points.findLast((point) => point.quality <= quality);
    if (above && below && above !== below) {
      const share = (quality - below.quality) / (above.quality - below.quality);
      return this.ratioOf(below) + share * (this.ratioOf(above) - this.ratioOf(below));
    }
    const nearest = above ?? below;
    return nearest ? this.ratioOf(nearest) : 0;
  }

  private ratioOf({ quality, bytes }: CurvePoint): number {
    return Math.log(bytes / readCurve(this.curve, quality));
  }
}

function insert(points: CurvePoint[], point: CurvePoint): void {
  points.push(point);
  points.sort((a, b) => a.quality - b.quality);
}
