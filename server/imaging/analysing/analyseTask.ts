import type { Ground, PictureKind } from '@inkwell/core/model';
import type { Raster } from '@inkwell/core/planes';
import {
  groundOf,
  luminancePlane,
  pictureKindOf,
  type SalientRegion,
  salientRegions,
  tiltOf,
  type WordRegion,
  wordRegions,
} from '@inkwell/core/seeing';
import { FaceDetector, type SeenFace } from './faceDetector.ts';
import { startBackend } from './model.ts';
import { ObjectDetector, type SeenObject } from './objectDetector.ts';

export interface AnalyseTask {
  /** About 1000, 900 and 300 pixels long. */
  picture: Raster;
  medium: Raster;
  small: Raster;
  /** For the detectors. */
  looks: { objects: Raster; faces: Raster }[];
}

export interface Analysed {
  /** For each look, in its pixels. */
  objects: SeenObject[][];
  faces: SeenFace[][];
  words: WordRegion[];
  salient: SalientRegion[];
  tilt: number | null;
  kind: PictureKind;
  ground: Ground;
}

interface Detectors {
  objects: ObjectDetector;
  faces: FaceDetector;
}

let opened: Detectors | null = null;

async function openDetectors(): Promise<Detectors> {
  await startBackend();
  return { objects: await ObjectDetector.open(), faces: await FaceDetector.open() };
}

/** Runs in a thread of its own: looks at a picture in every way there is. */
export default async function analyseTask({ picture, medium, small, looks }: AnalyseTask): Promise<Analysed> {
  // What could not be opened is opened again with the next picture.
  opened ??= await openDetectors();
  const detectors = opened;
  const [objects, faces]: [SeenObject[][], SeenFace[][]] = [[], []];
  for (const look of looks) {
    objects.push(await detectors.objects.find(look.objects));
    faces.push(await detectors.faces.find(look.faces));
  }
  return {
    objects,
    faces,
    words: wordRegions(picture),
    salient: salientRegions(small),
    tilt: tiltOf(luminancePlane(medium))?.degrees ?? null,
    kind: pictureKindOf(medium),
    ground: groundOf(medium),
  };
}
