import { plainFinishId, resolveFinish } from '@inkwell/core/finishing';
import { largestWindow, wholeOf } from '@inkwell/core/geometry';
import type { FontBook } from '@inkwell/core/lettering';
import {
  type FrameSettings,
  keepNothing,
  type Lettering,
  type LetterStyle,
  type NamedLetterStyle,
  type Original,
  type Place,
  PlaceFieldsSchema,
  plainSettings,
} from '@inkwell/core/model';
import { planFrame } from '@inkwell/core/planning';
import equal from 'fast-deep-equal';
import { memo, useMemo } from 'react';
import { useFontBook } from '../../../fonts/useFontBook.ts';
import { FramePicture } from '../../../parts/pictures/FramePicture.tsx';
import { newWords } from './newItems.ts';

/** A wide picture such as many are shown as: no place of any network. */
const tilePlace: Place = PlaceFieldsSchema.parse({
  slug: 'style',
  name: 'Style',
  purpose: 'post',
  width: 640,
  height: 360,
  formats: ['jpeg'],
  limit: { bytes: 1_000_000, unit: 'MB' },
});
const output = { width: 640, height: 360 };
/** CSS pixels. */
const tileWidth = 128;
/** Longer words would be too small to be judged on a tile. */
const mostShown = 24;

const settings: FrameSettings = {
  ...plainSettings,
  window: { centreX: 0, centreY: 0, span: 1, turn: 0, mirror: false },
  format: 'jpeg',
};

/** Styles, each on one's own picture. */
export function StyleTiles(props: {
  styles: readonly NamedLetterStyle[];
  original: Original;
  text: string;
  chosen: LetterStyle | null;
  onChoose: (style: LetterStyle) => void;
}) {
  const { styles, original, text, chosen, onChoose } = props;
  const shown = text.length > mostShown ? `${text.slice(0, mostShown).trimEnd()} …` : text;
  const items = useMemo(
    () => styles.map(({ style }) => newWords('title', [], { text: shown, style, wanted: 0.3 })),
    [styles, shown],
  );
  const book = useFontBook(items);
  return (
    <section className="style-tiles" aria-label="Styles">
      {styles.map((one, at) => (
        <button
          key={one.id}
          type="button"
          className="plain-button style-tile"
          aria-pressed={chosen !== null && equal(chosen, one.style)}
          onClick={() => onChoose(one.style)}
        >
          <Tile original={original} items={items.slice(at, at + 1)} book={book} />
          <span className="small">{one.name}</span>
        </button>
      ))}
    </section>
  );
}

const Tile = memo(function Tile(props: { original: Original; items: Lettering; book: FontBook | null }) {
  const { original, items, book } = props;
  const plan = useMemo(
    () =>
      planFrame({
        original,
        place: tilePlace,
        settings: { ...settings, window: largestWindow(wholeOf(original), output) },
        treatment: resolveFinish(
          {
            frame: { finishId: null, blend: null },
            original: { finishId: null, blend: null },
            project: { finishId: plainFinishId },
          },
          [],
        ).treatment,
        keeping: keepNothing,
        lettering: book ? { items, book, originalId: original.id, placeId: 'style', ground: null } : undefined,
      }),
    [original, items, book],
  );
  return (
    <FramePicture
      frameId=""
      original={original}
      place={tilePlace}
      output={output}
      window={plan.window}
      settings={settings}
      border={null}
      planHash={null}
      lettering={plan.lettering}
      width={tileWidth}
    />
  );
});
