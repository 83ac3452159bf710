import { type FrameSettings, formatLabel, sidesWords } from '@inkwell/core/model';
import { tierWords } from '@inkwell/core/weighing';

/** How a frame's file is to be encoded, in short: its format, and what was set otherwise than usual. */
export function weighingWords({
  format,
  weighing,
  dimensions,
}: Pick<FrameSettings, 'format' | 'weighing' | 'dimensions'>): string {
  const { aim, mostQuality, chroma, colours, belowFloor } = weighing;
  return [
    formatLabel[format],
    ...(format === 'png' && colours !== 'full' ? [colours] : []),
    ...(aim?.kind === 'as good as fits' ? ['as good as fits'] : []),
    ...(aim?.kind === 'no heavier than it needs' ? [`no heavier: ${tierWords[aim.level].name}`] : []),
    ...(mostQuality === null ? [] : [`quality at most ${mostQuality}`]),
    ...(chroma === 'measured' ? [] : [`colour ${chroma}`]),
    ...(dimensions === null ? [] : [sidesWords(dimensions)]),
    ...(belowFloor ? ['whatever is lost'] : []),
  ].join(', ');
}
