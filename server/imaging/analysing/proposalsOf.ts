import { coveringRect, intersection, type Rect, scaledRect } from '@inkwell/core/geometry';
import type { Dimensions, Proposal } from '@inkwell/core/model';
import { type Detection, merged, surenessOf } from '@inkwell/core/proposing';
import type { Analysed } from './analyseTask.ts';
import type { SeenFace } from './faceDetector.ts';
import type { Look, LookPicture } from './looks.ts';
import { objectClass } from './objectClasses.ts';

/** More things than these in one picture are none that it is about. */
const mostObjects = 12;
const mostWords = 20;
/** A detector's box goes from the brows to the chin; a head is wider and higher by so much, most of that upwards. */
const head = { width: 1.4, height: 1.6, up: 0.12 };
/** Where the nose is this far from the middle between the eyes, in distances between the eyes, a face looks to that side. */
const looksAside = 0.3;
/** So many letters as clear as this are words for sure. */
const sureWords = { letters: 5, clearness: 0.85 };

type Reported = Detection & Pick<Proposal, 'kind' | 'sureness' | 'look'>;

/** A report of one look, placed in the picture; null where hardly any of it lies there. */
const placedIn = ({ part }: LookPicture, rect: Rect, picture: Dimensions): Rect | null => {
  const placed = scaledRect(
    { ...rect, left: rect.left - part.left, top: rect.top - part.top },
    { x: picture.width / part.width, y: picture.height / part.height },
  );
  const inside = intersection(placed, { left: 0, top: 0, ...picture });
  return inside.width > 1 && inside.height > 1 ? inside : null;
};

/** What is proposed of all that was seen in a picture, in its pixels. */
export function proposalsOf(
  analysed: Analysed,
  looks: readonly Look[],
  picture: Dimensions,
  sizes: { words: Dimensions; salient: Dimensions },
): Proposal[] {
  const faces = merged(
    looks.flatMap((look, at) => (analysed.faces[at] ?? []).flatMap((face) => faceIn(look.faces, face, picture))),
  );
  const objects = merged(
    looks.flatMap((look, at) =>
      (analysed.objects[at] ?? []).flatMap(({ index, score, rect }): Reported[] => {
        const known = objectClass(index);
        const sureness = surenessOf('object', score);
        const placed = placedIn(look.objects, rect, picture);
        return known && sureness && placed ? [{ ...known, score, sureness, rect: placed, look: null }] : [];
      }),
    ),
  ).slice(0, mostObjects);
  const seen = [...faces, ...objects].map(proposalOf);
  const words = [...analysed.words]
    .sort((a, b) => b.rect.width * b.rect.height - a.rect.width * a.rect.height)
    .slice(0, mostWords)
    .map(({ rect, letters, clearness }): Proposal => {
      const sure = letters >= sureWords.letters && clearness >= sureWords.clearness;
      return {
        ...coveringRect(rect, sizes.words, picture),
        kind: 'words',
        name: 'words',
        sureness: sure ? 'sure' : 'likely',
        look: null,
      };
    });
  if (seen.length + words.length > 0) return [...seen, ...words];
  // Only where nothing is known by its kind: what stands out is then the best guess.
  return analysed.salient.map(({ rect }) => ({
    ...coveringRect(rect, sizes.salient, picture),
    kind: 'stands out',
    name: 'what stands out',
    sureness: 'likely',
    look: null,
  }));
}

/** Where eyes and mouth of a face lie in its box: what is seen in fruit, sand and cats has its eyes low and its mouth near the nose. */
const proportions = { lowestEyes: 0.385, leastUnderNose: 0.13 };

/** Whether points lie as those of an upright face do. */
const isProportioned = (rect: Rect, eyes: { y: number }, nose: { y: number }, mouth: { y: number }) =>
  eyes.y > rect.top &&
  eyes.y <= rect.top + proportions.lowestEyes * rect.height &&
  nose.y > eyes.y &&
  mouth.y >= nose.y + proportions.leastUnderNose * rect.height;

function faceIn(look: LookPicture, { score, rect, landmarks }: SeenFace, picture: Dimensions): Reported[] {
  const sureness = surenessOf('face', score);
  const [one, other, nose, mouth] = landmarks;
  if (!sureness || !one || !other || !nose || !mouth) return [];
  const eyes = { x: (one.x + other.x) / 2, y: (one.y + other.y) / 2, apart: Math.abs(one.x - other.x) };
  if (!isProportioned(rect, eyes, nose, mouth)) return [];
  const aside = (nose.x - eyes.x) / Math.max(eyes.apart, 0.05 * rect.width);
  const [width, height] = [rect.width * head.width, rect.height * head.height];
  const placed = placedIn(
    look,
    {
      left: rect.left - (width - rect.width) / 2,
      top: rect.top - (height - rect.height) / 2 - head.up * rect.height,
      width,
      height,
    },
    picture,
  );
  const side = aside > looksAside ? 'right' : aside < -looksAside ? 'left' : null;
  return placed ? [{ kind: 'face', name: 'face', score, sureness, rect: placed, look: side }] : [];
}

const proposalOf = ({ kind, name, sureness, rect, look }: Reported): Proposal => ({
  ...rect,
  kind,
  // What it is taken for is right often enough only where it is sure.
  name: sureness === 'sure' ? name : kind,
  sureness,
  look,
});
