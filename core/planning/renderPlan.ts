import { z } from 'zod';
import { changesNothing } from '../finishing/index.ts';
import { borderOf, frameWindow, openingOf, ringOf, roundedRadius } from '../framing/index.ts';
import {
  boundsOf,
  enlargement,
  frameDimensions,
  type Grid,
  type GridSettings,
  gridOf,
  hasClosing,
  type Picture,
  type Pose,
  pictureBox,
  piecesOf,
  wholeWindow,
} from '../geometry/index.ts';
import {
  BackingSchema,
  type Border,
  BorderSchema,
  carriesTransparency,
  DeliveryFormatSchema,
  type Dimensions,
  DimensionsSchema,
  type FrameSettings,
  OpaqueBackingSchema,
  type Original,
  type Place,
  RingSchema,
  type Treatment,
  TreatmentSchema,
  TrimSchema,
  type Window,
  WindowSchema,
} from '../model/index.ts';
import { budgetBytes, defaultHeadroom } from '../weighing/index.ts';

/** Grows when the same plan would come out as other bytes, so that nothing cached under the old number is used. */
export const engineVersion = 6;

/** Transparency becomes this colour where the format cannot carry it. */
export const flattenColour = '#ffffff';

/** Encoder quality where the limit does not ask for less. */
export const bestQuality = 90;

const RectSchema = z.object({ left: z.number(), top: z.number(), width: z.number(), height: z.number() });

/** Everything about the pixels and the encoding of one file. The same plan gives the same bytes. */
export const RenderPlanSchema = z.object({
  engine: z.int(),
  original: DimensionsSchema.extend({ sha256: z.string() }),
  /** The part of the original that counts as the picture. */
  picture: TrimSchema,
  window: WindowSchema,
  /** What shows where the window reaches past the picture; null where it does not. */
  backing: BackingSchema.nullable(),
  output: DimensionsSchema,
  /** How many times wider the picture is drawn than it is. */
  stretch: z.number().positive(),
  /** The shape that a ring follows or that the file is cut out as; null for a plain rectangle. */
  shape: z
    .object({
      kind: z.enum(['ellipse', 'rounded']),
      /** Of the rounded corners, in output pixels. */
      radius: z.number().min(0),
      /** Its width in output pixels, which is a fraction in a proof. */
      ring: RingSchema.extend({ width: z.number().positive() }).nullable(),
      cutOut: z.boolean(),
    })
    .nullable(),
  /** How the output is cut into files; null where it is one. */
  grid: z.object({ columns: z.int(), rows: z.int(), piece: DimensionsSchema, bridge: z.int().min(0) }).nullable(),
  /** The panel at the end of a strip that shows the whole picture: its pixels across, and what it is drawn with. */
  closing: z.object({ width: z.int().positive(), window: WindowSchema, backing: OpaqueBackingSchema }).nullable(),
  /** What is done to the picture for its small size; null where it stays as scaling makes it. */
  finish: TreatmentSchema.omit({ border: true })
    .extend({
      /** How many times the output's dimensions it is sharpened at: what the original has the pixels for. */
      oversize: z.number().min(1),
      /** Pixels of the output to one of the file: less than 1 in a proof. */
      scale: z.number().positive(),
    })
    .nullable(),
  /** A line along the edges of what it runs `around`; in output pixels, which are fractions in a proof. */
  border: BorderSchema.extend({ width: z.number().positive(), around: z.array(RectSchema) }).nullable(),
  /** Colour behind transparent parts, `#rrggbb`; null keeps them transparent. */
  flatten: z.string().nullable(),
  encoding: z.object({
    format: DeliveryFormatSchema,
    /** Highest quality that is tried, 1..100. */
    quality: z.int(),
    /** The file may weigh this much at most: the limit less headroom. */
    budgetBytes: z.int().positive(),
    /** All pieces have the quality of the one that needs the lowest. */
    sharedQuality: z.boolean(),
  }),
});
export type RenderPlan = z.infer<typeof RenderPlanSchema>;

/** A thousandth of an original pixel: finer differences are arithmetic noise and must not change a plan's hash. */
const grain = 1000;
const settle = (value: number) => Math.round(value * grain) / grain;
const settled = (window: Window): Window => ({
  ...window,
  centreX: settle(window.centreX),
  centreY: settle(window.centreY),
  span: settle(window.span),
  turn: settle(window.turn),
});

export interface FrameToPlan {
  original: Pick<Original, 'sha256' | 'width' | 'height' | 'hasAlpha' | 'trim' | 'marks'>;
  place: Place;
  settings: FrameSettings;
  treatment: Treatment;
  /** Share of the limit that is left free, 0..1. */
  headroom?: number;
}

/** The plan of one frame at its full dimensions. */
export function planFrame({
  original,
  place,
  settings,
  treatment,
  headroom = defaultHeadroom,
}: FrameToPlan): RenderPlan {
  const window = frameWindow(original, place, { ...settings, border: treatment.border });
  const output = frameDimensions(place, original, settings);
  const isTransparent = original.hasAlpha || settings.backing?.kind === 'transparent' || isCutOut(place, settings);
  const needsFlattening = settings.flatten !== null || !carriesTransparency(settings.format);
  return {
    engine: engineVersion,
    original: { sha256: original.sha256, width: original.width, height: original.height },
    picture: pictureBox(original),
    window: settled(window),
    backing: settings.backing,
    output,
    stretch: settings.stretch,
    shape: shapeOf(place, settings, output),
    grid: gridOf(place, settings),
    finish: finishOf(
      treatment,
      window,
      openingOf(place, original, { ...settings, border: treatment.border }).dimensions,
    ),
    border: borderAround(borderOf(place, treatment.border), gridOf(place, settings), output),
    closing: closingPanel(original, place, settings, window),
    flatten: isTransparent && needsFlattening ? (settings.flatten ?? flattenColour) : null,
    encoding: {
      format: settings.format,
      quality: bestQuality,
      budgetBytes: budgetBytes(place.limit, headroom),
      sharedQuality: settings.sharedQuality,
    },
  };
}

/** Beyond so many pixels of output a file is no small size that wants finishing, and would not fit into memory. */
export const mostFinished = 50_000_000;
/** What is enlarged for sharpening has at most so many pixels. */
const mostEnlarged = 60_000_000;

/** A treatment as far as the original has the pixels for it; null where nothing is done. */
function finishOf({ border: _, ...treatment }: Treatment, window: Window, opening: Dimensions): RenderPlan['finish'] {
  const area = opening.width * opening.height;
  if (changesNothing({ ...treatment, border: null }) || area > mostFinished) return null;
  return { ...treatment, oversize: settle(oversizeFor(treatment, window, opening)), scale: 1 };
}

/** How many times its dimensions a frame is sharpened at: never more than the original has the pixels for. */
export function oversizeFor({ oversize }: Pick<Treatment, 'oversize'>, window: Window, opening: Dimensions): number {
  const there = 1 / enlargement(window, opening);
  const bearable = Math.sqrt(mostEnlarged / (opening.width * opening.height));
  return Math.max(1, Math.min(oversize, there, bearable));
}

/** Whether a frame is delivered as its shape, with nothing round it; pieces of one picture never are. */
export const isCutOut = (place: Pick<Place, 'shape' | 'group'>, { cutOut }: Pick<FrameSettings, 'cutOut'>): boolean =>
  cutOut && place.shape !== 'rectangle' && !place.group;

/** A border with the rectangles that it runs inside of: the whole file, or every piece of it. */
function borderAround(border: Border | null, grid: Grid | null, output: Dimensions): RenderPlan['border'] {
  if (!border) return null;
  const pieces = grid && border.round === 'pieces' ? piecesOf(grid) : [{ left: 0, top: 0, ...output }];
  return { ...border, around: pieces };
}

/** The panel after the last of a strip: the whole picture, turned and mirrored as the strip is. Null where it has none. */
export function closingPanel(
  original: Picture,
  place: Place,
  settings: GridSettings & Pick<FrameSettings, 'stretch'>,
  pose: Pose,
): RenderPlan['closing'] {
  const { closing, stretch } = settings;
  if (!closing || !hasClosing(place, settings) || typeof place.height !== 'number') return null;
  const panel = { width: place.width, height: place.height * stretch };
  return {
    width: place.width,
    window: settled(wholeWindow(boundsOf(original, closing), panel, pose)),
    backing: closing,
  };
}

/** The two plans that a strip with a closing panel is drawn by, side by side; the one that it is where it has none. */
export function besideClosing(plan: RenderPlan): { strip: RenderPlan; closing: RenderPlan | null } {
  if (!plan.closing) return { strip: plan, closing: null };
  const { width, window, backing } = plan.closing;
  const part = (across: number) => ({
    ...plan,
    output: { width: across, height: plan.output.height },
    closing: null,
    grid: null,
    border: null,
  });
  return { strip: part(plan.output.width - width), closing: { ...part(width), window, backing } };
}

function shapeOf(place: Place, settings: FrameSettings, output: Dimensions): RenderPlan['shape'] {
  const ring = ringOf(place, output, settings.ring);
  const cutOut = isCutOut(place, settings);
  if (!ring && !cutOut) return null;
  const kind = place.shape === 'circle' ? 'ellipse' : 'rounded';
  return { kind, radius: kind === 'rounded' ? roundedRadius(output) : 0, ring, cutOut };
}

/** The same picture at other dimensions, in one piece: a proof. At least one pixel each way. */
export function scalePlan(plan: RenderPlan, factor: number): RenderPlan {
  const scaled = (pixels: number) => Math.max(1, Math.round(pixels * factor));
  const output: Dimensions = { width: scaled(plan.output.width), height: scaled(plan.output.height) };
  const shape = plan.shape && {
    ...plan.shape,
    radius: plan.shape.radius * factor,
    ring: plan.shape.ring && { ...plan.shape.ring, width: plan.shape.ring.width * factor },
  };
  const finish = plan.finish && { ...plan.finish, scale: plan.finish.scale * factor };
  const border = plan.border && {
    ...plan.border,
    width: plan.border.width * factor,
    around: plan.border.around.map(({ left, top, width, height }) => ({
      left: left * factor,
      top: top * factor,
      width: width * factor,
      height: height * factor,
    })),
  };
  const closing = plan.closing && {
    ...plan.closing,
    width: Math.min(scaled(plan.closing.width), Math.max(1, output.width - 1)),
  };
  return { ...plan, output, grid: null, shape, closing, finish, border };
}
