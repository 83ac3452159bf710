import { changesNothing, plainFinishId } from '../finishing/index.ts';
import { frameDimensions, placeDimensions } from '../geometry/index.ts';
import {
  carriesTransparency,
  type FrameChange,
  formatLabel,
  leastSimilarity,
  plainWeighing,
  saidOf,
  type Weight,
} from '../model/index.ts';
import { isCutOut } from '../planning/index.ts';
import { marginOver, similarityFloor, tierFloors } from '../weighing/index.ts';
import type { FrameToCheck } from './frameToCheck.ts';

/** Another way to make a frame's file. What it weighs and costs is measured, not guessed. */
export interface Way {
  key: string;
  label: string;
  /** What it takes besides bytes, in words. */
  cost: string;
  change: FrameChange;
}

type Framed = Omit<FrameToCheck, 'weight' | 'detail' | 'figures'>;

/** What could be done where a frame's file is too heavy, or too much is lost in it. Only what would change something. */
export function waysOut(frame: Framed): Way[] {
  const { place, original, settings, treatment } = frame;
  const { weighing, format } = settings;
  const ways = otherFormats(frame);
  if ((format === 'jpeg' || format === 'avif') && weighing.chroma !== '4:2:0') {
    ways.push({
      key: 'chroma',
      label: 'Keep colour half as fine',
      cost: 'coloured edges soften',
      change: { weighing: { ...weighing, chroma: '4:2:0' } },
    });
  }
  if (!changesNothing(treatment) && settings.finishId !== plainFinishId) {
    ways.push(
      { key: 'gentle', label: 'Finish it gently', cost: 'softer edges', change: { finishId: 'gentle', blend: null } },
      {
        key: 'plain',
        label: 'Leave it plain',
        cost: 'no sharpening',
        change: { finishId: plainFinishId, blend: null },
      },
    );
  }
  const said = saidOf(place);
  if (typeof said.height !== 'number') {
    const { width, height } = frameDimensions(place, original, settings);
    for (const part of [0.8, 0.6]) {
      const lower = placeDimensions(said, original, { width, height: height * part }).height;
      if (lower >= height) continue;
      ways.push({
        key: `height ${lower}`,
        label: `Make it ${lower} px high`,
        cost: `${Math.round((1 - lower / height) * 100)} % fewer pixels, and less of the picture`,
        change: { dimensions: { width, height: lower } },
      });
    }
  }
  if (format !== 'png' && !weighing.belowFloor) {
    ways.push({
      key: 'quality',
      label: 'Take the lower quality',
      cost: 'what is lost is seen',
      change: { weighing: { ...weighing, belowFloor: true } },
    });
  }
  return ways.filter((way, index) => ways.findIndex(({ key }) => key === way.key) === index);
}

const paletteWays = { palette: 'PNG with a palette', 'dithered palette': 'PNG with a dithered palette' } as const;

/** The other formats, and kinds of PNG, that a frame's place takes. What is cut out needs one that carries transparency. */
export function otherFormats({ place, settings }: Framed): Way[] {
  const { weighing, format } = settings;
  const cutOut = isCutOut(place, settings) && settings.flatten === null;
  const ways: Way[] = place.formats
    .filter((other) => !cutOut || carriesTransparency(other))
    .map((other) => ({
      key: other,
      label: formatLabel[other],
      cost: other === 'png' ? 'nothing is lost' : '',
      change: { format: other, weighing: { ...weighing, colours: plainWeighing.colours } },
    }));
  if (place.formats.includes('png')) {
    for (const colours of ['palette', 'dithered palette'] as const) {
      const change: FrameChange = { format: 'png', weighing: { ...weighing, colours } };
      ways.push({ key: colours, label: paletteWays[colours], cost: 'at most 256 colours', change });
    }
  }
  const own = format === 'png' && weighing.colours !== 'full' ? weighing.colours : format;
  return ways.filter(({ key }) => key !== own);
}

/** A way with what was measured of it. */
export interface MeasuredWay extends Way {
  weight: Weight;
}

/** Whether a file fits and has not lost more than is delivered. */
export const isGood = ({ fits, files }: Weight): boolean =>
  fits && files.every(({ similarity }) => marginOver(similarity, similarityFloor) >= 0);

/** What is seen to be left of a picture: above the strictest level nobody sees a difference. */
const seenOf = ({ weight }: MeasuredWay) => Math.round(Math.min(leastSimilarity(weight), tierFloors.flick.overall) * 2);

/** Ways in the order in which a person would take them: good ones first, by what is seen to be left, then by bytes. */
export function rankWays<One extends MeasuredWay>(ways: readonly One[]): One[] {
  const rank = ({ weight }: One) => (isGood(weight) ? 2 : weight.fits ? 1 : 0);
  return [...ways].sort((a, b) => rank(b) - rank(a) || seenOf(b) - seenOf(a) || a.weight.bytes - b.weight.bytes);
}

/** The lightest of some ways that hold the strictest level; null where none does. */
export function lightestUnseen<One extends MeasuredWay>(ways: readonly One[]): One | null {
  return ways
    .filter(
      ({ weight: { fits, files } }) =>
        fits && files.every(({ similarity }) => marginOver(similarity, tierFloors.flick) >= 0),
    )
    .reduce<One | null>((best, way) => (best && best.weight.bytes <= way.weight.bytes ? best : way), null);
}
