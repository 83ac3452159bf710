import {
  type AfterUpload,
  type Area,
  type FrameSettings,
  type KeepMark,
  type Original,
  type Place,
  PlaceFieldsSchema,
  plainSettings,
  type Similarity,
  type Weight,
  type Window,
} from '../model/index.ts';

/** A place for tests: a post of 600 x 500 that takes JPEG and PNG, unless told otherwise. */
export function samplePlace(values: Partial<Place> = {}): Place {
  return PlaceFieldsSchema.parse({
    slug: 'sample',
    name: 'Sample place',
    purpose: 'post',
    width: 600,
    height: 500,
    formats: ['jpeg', 'png'],
    limit: { bytes: 8_000_000, unit: 'MB' },
    ...values,
  });
}

/** What a network does after an upload, for tests. */
export const sampleAfterUpload: AfterUpload = {
  longEdge: 1080,
  kernel: 'cubic',
  format: 'jpeg',
  quality: 76,
  chroma: '4:2:0',
  colours: 'converted',
};

/** A part of a place that controls cover, for tests. */
export const sampleArea = (left: number, top: number, width: number, height: number): Area => ({
  left,
  top,
  width,
  height,
  shape: 'rectangle',
  reason: 'controls',
});

/** An original for tests: 1000 x 1000 without marks, unless told otherwise. */
export function sampleOriginal(values: Partial<Original> = {}): Original {
  return {
    id: '00000000-0000-4000-8000-0000000000bb',
    name: 'Kites',
    fileName: 'kites.jpg',
    sha256: 'ab'.repeat(32),
    bytes: 1,
    format: 'jpeg',
    width: 1000,
    height: 1000,
    hasAlpha: false,
    page: 0,
    pages: 1,
    words: { credit: '', copyright: '', altText: '' },
    origin: { position: null, device: null },
    createdAt: '2026-11-25T08:00:00.000Z',
    marks: [],
    decided: [],
    trim: null,
    finishId: null,
    blend: null,
    rewritten: null,
    version: 1,
    ...values,
  };
}

/** A mark for tests: a kite that must be kept, a hundred pixels each way from the first on, unless told otherwise. */
export const sampleMark = (values: Partial<KeepMark> = {}): KeepMark => ({
  id: '00000000-0000-4000-8000-000000000001',
  name: 'The kite',
  role: 'keep',
  priority: 'must',
  kind: null,
  look: null,
  shape: 'rectangle',
  left: 0,
  top: 0,
  width: 100,
  height: 100,
  ...values,
});

/** The settings of a frame that a hand has moved. */
export function byHand(
  window: Pick<Window, 'centreX' | 'centreY' | 'span'> & Partial<Window>,
  values: Partial<FrameSettings> = {},
): FrameSettings {
  return {
    ...plainSettings,
    window: { turn: 0, mirror: false, ...window },
    composed: false,
    format: 'jpeg',
    ...values,
  };
}

/** What was measured of a frame that came out as one good file, unless told otherwise. */
export function sampleWeight(values: Partial<Weight> = {}, similarity: Partial<Similarity> = {}): Weight {
  const { quality = 90, bytes = 400_000 } = values;
  const worst = { left: 0, top: 0, width: 32, height: 32, similarity: 97 };
  return {
    planHash: 'x',
    format: 'jpeg',
    quality,
    bytes,
    fits: true,
    metadataBytes: 0,
    nature: { kind: 'photo', colours: 9000, flat: 0.02, edges: 0.01, noise: 2.1, chromaKept: 99 },
    files: [
      {
        bytes,
        quality,
        chroma: '4:2:0',
        colours: null,
        similarity: { overall: 99, worst, flatAreaError: 0.5, blockError: 4, regions: [], ...similarity },
      },
    ],
    ...values,
  };
}
