import { type CurvePoint, readCurve } from './qualityCurve.ts';

/**
 * What a full encoding is expected to weigh: the curve of quick encodings, times what full encodings were found to weigh
 * of quick ones, which moves slowly from one quality to the next.
 */
export class BytesEstimate {
  private readonly quick: readonly CurvePoint[];
  /** Logarithms of full over quick bytes, ascending by quality. */
  private readonly ratios: { quality: number; ratio: number }[] = [];
  /** What the full encoding that was learned last weighed of a quick one. */
  last: number | null = null;

  /** @param correction what full encodings weigh of quick ones as long as nothing is learned */
  constructor(
    quick: readonly CurvePoint[],
    private readonly correction: number,
  ) {
    this.quick = [...quick].sort((a, b) => a.quality - b.quality);
  }

  /** Takes in what a full encoding came out as. */
  learn(quality: number, bytes: number): void {
    this.last = bytes / readCurve(this.quick, quality);
    this.ratios.push({ quality, ratio: Math.log(this.last) });
    this.ratios.sort((a, b) => a.quality - b.quality);
  }

  at(quality: number): number {
    return readCurve(this.quick, quality) * Math.exp(this.ratioAt(quality));
  }

  private ratioAt(quality: number): number {
    const above = this.ratios.find((known) => known.quality >= quality);
    const below = this.ratios.findLast((known) => known.quality <= quality);
    if (above && below && above !== below) {
      const share = (quality - below.quality) / (above.quality - below.quality);
      return below.ratio + share * (above.ratio - below.ratio);
    }
    return (above ?? below)?.ratio ?? Math.log(this.correction);
  }
}
