import { windowRect } from '@inkwell/core/geometry';
import type { EncodedFile, ManifestFile } from '@inkwell/core/model';
import { besideClosing, planContentArea, type RenderPlan, wordsOn } from '@inkwell/core/planning';
import type { KeptEncoding } from '../../store/measured/encodings.ts';
import type { DeliveryItem } from '../../store/schema/index.ts';

/** A file of a delivery that is made, with what was measured of it. */
export interface MadeFile {
  item: DeliveryItem;
  plan: RenderPlan;
  file: EncodedFile;
  encoding: KeptEncoding;
}

/** The dimensions of one file of a plan. */
export const fileDimensions = ({ grid, output }: RenderPlan) => (grid ? grid.piece : output);

/** What is said of a file that is made, in the manifest of its delivery. @param hash of its plan */
export function manifestLine({ item, plan, file, encoding }: MadeFile, hash: string): ManifestFile {
  const { piece } = item;
  const { sha256, opened, seams } = encoding;
  const words = wordsOn(plan, piece?.index ?? 0);
  return {
    file: item.fileName,
    original: item.original,
    originalSha256: plan.original.sha256,
    network: item.network,
    place: item.place,
    ...(item.placeThen ? { placeThen: item.placeThen } : {}),
    ...fileDimensions(plan),
    bytes: opened.bytes,
    sha256,
    format: plan.encoding.format,
    ...(item.uploadWidth ? { uploadWidth: item.uploadWidth } : {}),
    quality: file.quality,
    chroma: file.chroma,
    colours: file.colours,
    similarity: file.similarity.overall,
    worstSpot: file.similarity.worst,
    limitBytes: item.limit.bytes,
    limitUnit: item.limit.unit,
    window: windowLine(plan, piece),
    planHash: hash,
    ...(item.finish ? { finish: item.finish } : {}),
    ...(words.length > 0 ? { words } : {}),
    ...(piece ? { piece } : {}),
    ...(seams.length > 0 ? { seams } : {}),
    ...(item.posting ? { posting: item.posting } : {}),
  };
}

/** What of the original a file is from: all of it on a closing panel, else what the whole strip shows. */
function windowLine(plan: RenderPlan, piece: DeliveryItem['piece']): ManifestFile['window'] {
  const { strip, closing } = besideClosing(plan);
  const shown = closing && piece && piece.column === piece.columns ? closing : strip;
  const { turn, mirror } = shown.window;
  return { ...windowRect(shown.window, planContentArea(shown).window), turn, mirror };
}
