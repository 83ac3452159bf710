import type { PictureKind } from '@inkwell/core/model';
import type { Raster } from '@inkwell/core/planes';
import {
  luminancePlane,
  pictureKindOf,
  type SalientRegion,
  salientRegions,
  tiltOf,
  type WordRegion,
  wordRegions,
} from '@inkwell/core/seeing';
import { Detectors, type SeenFace, type SeenObject } from './detectors.ts';

export interface AnalyseTask {
  /** About 900 pixels long. */
  picture: Raster;
  /** About 300 pixels long. */
  small: Raster;
  /** Square pictures for the detectors: the whole first, then parts of it. */
  looks: { objects: Uint8Array; faces: Uint8Array }[];
}

export interface Analysed {
  /** For each look. */
  objects: SeenObject[][];
  faces: SeenFace[][];
  words: WordRegion[];
  salient: SalientRegion[];
  tilt: number | null;
  kind: PictureKind;
}

let opened: Detectors | null = null;

/** Runs in a thread of its own: looks at a picture in every way there is. */
export default async function analyseTask({ picture, small, looks }: AnalyseTask): Promise<Analysed> {
  // What could not be opened is opened again with the next picture.
  opened ??= await Detectors.open();
  const detectors = opened;
  const [objects, faces]: [SeenObject[][], SeenFace[][]] = [[], []];
  for (const look of looks) {
    objects.push(await detectors.objectsIn(look.objects));
    faces.push(await detectors.facesIn(look.faces));
  }
  return {
    objects,
    faces,
    words: wordRegions(picture),
    salient: salientRegions(small),
    tilt: tiltOf(luminancePlane(picture))?.degrees ?? null,
    kind: pictureKindOf(picture),
  };
}
