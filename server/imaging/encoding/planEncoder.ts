import { intersection, piecesOf, type Rect } from '@inkwell/core/geometry';
import type { Chroma, PictureNature } from '@inkwell/core/model';
import type { RenderPlan } from '@inkwell/core/planning';
import { type Encoder, encoderOf } from './encoders.ts';

/** A spot that has kept less than this of its colours at 4:2:0 is seen to smear. */
const smearing = 94;

/**
 * How finely the files of a plan keep colour; null where their format has no choice.
 *
 * @param nature of the picture, which is only waited for where it decides
 */
export async function chromaFor({ encoding }: RenderPlan, nature: Promise<PictureNature>): Promise<Chroma | null> {
  if (encoding.format === 'webp') return '4:2:0';
  if (encoding.format === 'png') return null;
  if (encoding.chroma !== 'measured') return encoding.chroma;
  const { chromaKept } = await nature;
  return chromaKept < smearing ? '4:4:4' : '4:2:0';
}

/** The encoder of a plan's files, metadata included. @param highest quality that is tried */
export const encoderFor = (
  { encoding }: RenderPlan,
  chroma: Chroma | null,
  highest: number = encoding.quality,
): Encoder => encoderOf({ ...encoding, chroma: chroma ?? '4:2:0', metadata: encoding }, highest);

/** The same with nothing in its files but pixels. */
export const bareEncoderFor = ({ encoding }: RenderPlan, chroma: Chroma | null): Encoder =>
  encoderOf(
    {
      ...encoding,
      chroma: chroma ?? '4:2:0',
      metadata: { profile: false, words: null, origin: { position: null, device: null } },
    },
    encoding.quality,
  );

/** The regions that count in one piece, in its own pixels. */
export function watchedIn({ encoding, grid }: RenderPlan, index: number): Rect[] {
  const piece = grid ? piecesOf(grid)[index] : null;
  if (!piece) return encoding.watched;
  return encoding.watched
    .map((region) => intersection(region, piece))
    .filter(({ width, height }) => width > 0 && height > 0)
    .map((region) => ({ ...region, left: region.left - piece.left, top: region.top - piece.top }));
}
