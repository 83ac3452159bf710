import {
  type AfterUpload,
  type DryRunOutcome,
  formatLabel,
  formatLimit,
  type ImageFormat,
  type ManifestFile,
  type Place,
  type SheetChange,
} from '../model/index.ts';

import { isCut } from './counts.ts';

/** A difference with what the spec book said, in words. */
export interface Difference {
  /** Whether it is about the place, or about all that is uploaded to its network. */
  of: 'place' | 'network';
  change: SheetChange;
  said: string;
  measured: string;
}

/** What the spec book says now of the place and the network that a file was uploaded to. */
export interface BookSays {
  place: Place;
  after: AfterUpload | undefined;
}

/** Sides are rounded to whole pixels: so much is no difference. */
const rounding = 1;

/** Where a network did otherwise with a file than the spec book says. */
export function differences(line: ManifestFile, outcome: DryRunOutcome, book: BookSays): Difference[] {
  if (outcome.state === 'refused') return refusedDifferently(line, outcome, book);
  if (outcome.state !== 'shown') return [];
  return [
    ...shapedDifferently(line, outcome, book),
    ...gappedDifferently(outcome, book),
    ...processedDifferently(line, outcome, book),
  ];
}

function refusedDifferently(
  line: ManifestFile,
  { refusal }: Extract<DryRunOutcome, { state: 'refused' }>,
  { place }: BookSays,
): Difference[] {
  const { code, limitBytes, mostFiles } = refusal;
  if (code === 'too heavy' && limitBytes && line.bytes <= place.limit.bytes && limitBytes < place.limit.bytes) {
    const limit = { bytes: limitBytes, unit: place.limit.unit };
    return [inPlace({ field: 'limit', limit }, formatLimit(place.limit), formatLimit(limit))];
  }
  if (code === 'format' && place.formats.includes(line.format)) {
    const formats = place.formats.filter((format) => format !== line.format);
    return formats.length === 0 ? [] : [inPlace({ field: 'formats', formats }, named(place.formats), named(formats))];
  }
  if (
    code === 'too many files' &&
    mostFiles &&
    mostFiles >= 2 &&
    place.group?.kind === 'panels' &&
    mostFiles < place.group.max
  ) {
    return [
      inPlace(
        { field: 'most panels', most: mostFiles },
        `up to ${place.group.max} panels`,
        `up to ${mostFiles} panels`,
      ),
    ];
  }
  return [];
}

const named = (formats: readonly ImageFormat[]) => formats.map((format) => formatLabel[format]).join(', ');
const inPlace = (change: SheetChange, said: string, measured: string): Difference => ({
  of: 'place',
  change,
  said,
  measured,
});

/** What is cut off along one axis says that the place has another aspect ratio. */
function shapedDifferently(
  line: ManifestFile,
  { back }: Extract<DryRunOutcome, { state: 'shown' }>,
  { place }: BookSays,
): Difference[] {
  const { width, height } = place;
  if (!isCut(back.lost) || typeof height !== 'number' || line.width !== width || line.height !== height) return [];
  const measured = Math.round((width * back.kept.height) / back.kept.width);
  return [inPlace({ field: 'height', height: measured }, `${width} × ${height} px`, `${width} × ${measured} px`)];
}

/** Gaps are drawn in whole pixels: a difference is one of more than that. */
function gappedDifferently(
  { back: { gap, shown } }: Extract<DryRunOutcome, { state: 'shown' }>,
  { place: { group } }: BookSays,
): Difference[] {
  const [widest] = shown;
  if (gap === null || !widest || group?.kind !== 'block') return [];
  if (Math.abs(gap - group.gap) * widest.width <= rounding) return [];
  const measured = Math.min(0.2, Math.round(gap * 1000) / 1000);
  const words = (share: number) => `gaps of ${Number((100 * share).toFixed(1))} % of a tile`;
  return [inPlace({ field: 'gap', gap: measured }, words(group.gap), words(measured))];
}

function processedDifferently(
  line: ManifestFile,
  { back: { kept, lost } }: Extract<DryRunOutcome, { state: 'shown' }>,
  { after }: BookSays,
): Difference[] {
  if (!after) return [];
  const found: Difference[] = [];
  const uploaded = Math.max(line.width - lost.left - lost.right, line.height - lost.top - lost.bottom);
  const long = Math.max(kept.width, kept.height);
  const isScaled = long < uploaded - rounding;
  if (isScaled ? Math.abs(long - after.longEdge) > rounding : long > after.longEdge + rounding) {
    const change: SheetChange = { field: 'long edge', longEdge: long };
    found.push({
      of: 'network',
      change,
      said: `${after.longEdge} px`,
      measured: isScaled ? `${long} px` : `at least ${long} px`,
    });
  }
  const quality = kept.quality ?? after.quality;
  const chroma = kept.chroma ?? after.chroma;
  if (kept.format !== after.format || quality !== after.quality || chroma !== after.chroma) {
    const words = (format: 'jpeg' | 'webp', at: number | null, fineness: string | null) =>
      [`${formatLabel[format]}${at === null ? '' : ` ${at}`}`, ...(fineness ? [fineness] : [])].join(', ');
    found.push({
      of: 'network',
      change: { field: 'encoding', format: kept.format, quality, chroma },
      said: words(after.format, after.quality, after.format === 'jpeg' ? after.chroma : null),
      measured: words(kept.format, kept.quality, kept.chroma),
    });
  }
  return found;
}
