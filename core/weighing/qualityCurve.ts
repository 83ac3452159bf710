/** How many bytes a quality gave, in one encoder. */
export interface CurvePoint {
  quality: number;
  bytes: number;
}

/**
 * The factor by which an encoder of the common JPEG kind multiplies its quantisation table at a quality of 1..100
 * (Independent JPEG Group, jcparam.c, jpeg_quality_scaling). The logarithm of the bytes falls almost in a straight
 * line with the logarithm of this factor, which is why the curve is read along it and not along quality.
 */
function quantiserScale(quality: number): number {
  return quality < 50 ? 5000 / quality : Math.max(1, 200 - 2 * quality);
}

/** How steeply the bytes of a photograph fall: assumed while only one point is known. */
const usualSlope = -0.7;

/** Estimated bytes at `quality` from one or more measured points, sorted by quality. */
export function readCurve(points: readonly CurvePoint[], quality: number): number {
  const x = Math.log(quantiserScale(quality));
  const at = (point: CurvePoint) => ({ x: Math.log(quantiserScale(point.quality)), y: Math.log(point.bytes) });
  const [first] = points;
  if (!first) throw new RangeError('readCurve: at least one point is needed.');
  if (points.length === 1) {
    const only = at(first);
    return Math.exp(only.y + usualSlope * (x - only.x));
  }
  const upperIndex = points.findIndex((point) => point.quality >= quality);
  const right = upperIndex < 0 ? points.length - 1 : Math.max(1, upperIndex);
  const a = at(points[right - 1] ?? first);
  const b = at(points[right] ?? first);
  const slope = a.x === b.x ? usualSlope : (b.y - a.y) / (b.x - a.x);
  return Math.exp(a.y + slope * (x - a.x));
}
