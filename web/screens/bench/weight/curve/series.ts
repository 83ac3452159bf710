import { formatLabel, type ImageFormat, type Place, type Weighing } from '@inkwell/core/model';
import type { Encoding } from '../../../../api/files/encodings.ts';
import { palette } from '../../../../theme/palette.ts';

/** One line of the curve: a way to encode, over all its qualities. */
export interface Series extends Omit<Encoding, 'quality'> {
  key: string;
  name: string;
  colour: string;
  /** Qualities that are tried for the curve, best first; a single one where the format has none. */
  qualities: number[];
}

const lossy = [95, 90, 85, 80, 70, 60, 50, 40, 30, 20, 10];
const palettes = [95, 80, 60, 40, 20];
const colours: Record<ImageFormat, string> = {
  jpeg: palette.action,
  webp: palette.selection,
  avif: palette.caution,
  png: palette.ink,
};

/** What a frame can be encoded as at its place, its own format first. */
export function seriesOf(place: Place, own: ImageFormat, { chroma }: Weighing): Series[] {
  const formats = [own, ...place.formats.filter((format) => format !== own)];
  return formats.flatMap((format): Series[] => {
    const line = { key: format, name: formatLabel[format], format, colours: 'full' as const, chroma };
    if (format !== 'png') return [{ ...line, colour: colours[format], qualities: lossy }];
    return [
      { ...line, colour: colours.png, qualities: [100] },
      {
        ...line,
        key: 'palette',
        name: 'PNG, palette',
        colours: 'palette',
        colour: palette.secondInk,
        qualities: palettes,
      },
    ];
  });
}

/** Whether an encoding lies on a line. */
export const isOf = (series: Series, encoding: Omit<Encoding, 'quality'>): boolean =>
  series.format === encoding.format && (series.colours === 'full') === (encoding.colours === 'full');

/** Numbers from low to high in an order in which every next one lies far from those before. */
export function bisecting(low: number, high: number): number[] {
  const order: number[] = [];
  const spans: [number, number][] = [[low, high]];
  for (let span = spans.shift(); span; span = spans.shift()) {
    const [from, to] = span;
    if (from > to) continue;
    const middle = (from + to) >> 1;
    order.push(middle);
    spans.push([from, middle - 1], [middle + 1, to]);
  }
  return order;
}
