import type { Chroma, FrameChange, FrameSettings, ImageFormat, UploadChoice, Weight } from '../model/index.ts';

/** Formats whose files have a quality. */
const hasQuality = (format: ImageFormat): boolean => format !== 'png';
/** Formats in which colour can be kept as finely as light, or half as finely. */
export const choosesChroma = (format: ImageFormat): boolean => format === 'jpeg' || format === 'avif';

/** How a frame is uploaded as it is set. @param weight as it was measured */
export function choiceOf({ format, uploadWidth }: FrameSettings, weight: Weight): UploadChoice {
  const chroma = weight.files[0]?.chroma ?? null;
  return {
    width: uploadWidth,
    format,
    quality: hasQuality(format) ? weight.quality : null,
    chroma: choosesChroma(format) ? chroma : null,
    strength: 1,
  };
}

/** The same choice in another format, as finely coloured as before where that can be chosen. */
export const inFormat = (choice: UploadChoice, format: ImageFormat, quality: number, chroma: Chroma): UploadChoice => ({
  ...choice,
  format,
  quality: hasQuality(format) ? (choice.quality ?? quality) : null,
  chroma: choosesChroma(format) ? (choice.chroma ?? chroma) : null,
});

/**
 * What sets a frame as a choice says. Its file gets the choice's quality, or the highest below that which fits its place.
 *
 * @param blend that its finish has without the choice
 */
export function changeFor(
  { width, format, quality, chroma, strength }: UploadChoice,
  settings: Pick<FrameSettings, 'weighing' | 'blend'>,
  blend: number,
): FrameChange {
  return {
    uploadWidth: width,
    format,
    weighing: {
      ...settings.weighing,
      aim: { kind: 'as good as fits' },
      mostQuality: quality,
      chroma: chroma ?? settings.weighing.chroma,
      ...(format === 'png' ? { colours: 'full' } : {}),
    },
    blend: strength === 1 ? settings.blend : Math.min(1, blend * strength),
  };
}

/** Whether a frame is set as a choice says, its finish aside: a hand may have changed that for its own sake. */
export const isSetAs = (
  { width, format, quality, chroma }: UploadChoice,
  { uploadWidth, format: own, weighing }: FrameSettings,
): boolean =>
  uploadWidth === width &&
  own === format &&
  weighing.mostQuality === quality &&
  (chroma === null || weighing.chroma === chroma);
