import {
  type Area,
  bytesOf,
  frameBounds,
  type ImageFormat,
  inUnit,
  type KeptIn,
  KeptInSchema,
  type OwnPlace,
  OwnPlaceSchema,
  type Place,
  type Purpose,
  placeSides,
  type WeightUnit,
} from '@inkwell/core/model';
import { uploadNumbers } from '@inkwell/core/splitting';

/** A place as it is being written down: numbers are still text. */
export interface PlaceDraft {
  name: string;
  purpose: Purpose;
  measure: 'sides' | 'ratio' | 'free height';
  width: string;
  height: string;
  ratioWidth: string;
  ratioHeight: string;
  longEdge: string;
  leastHeight: string;
  greatestHeight: string;
  formats: ImageFormat[];
  limit: string;
  unit: WeightUnit;
  shape: Place['shape'];
  shownWidths: string;
  /** One picture, panels side by side, or tiles in columns and rows; or as the place that it was begun from. */
  pieces: 'one' | 'panels' | 'tiles' | 'copied';
  mostPanels: string;
  columns: string;
  rows: string;
  /** In percent of a tile's width. */
  gap: string;
  posting: 'as read' | 'last first' | 'down the columns';
  keptIn: 'sheet' | 'project';
  sheet: string;
  /** The place that it was begun from: its covered areas come along, scaled to the new sides. */
  from: Place | null;
}

export const emptyDraft: PlaceDraft = {
  name: '',
  purpose: 'post',
  measure: 'sides',
  width: '1200',
  height: '800',
  ratioWidth: '3',
  ratioHeight: '2',
  longEdge: '1200',
  leastHeight: '400',
  greatestHeight: '3000',
  formats: ['jpeg', 'png'],
  limit: '5',
  unit: 'MB',
  shape: 'rectangle',
  shownWidths: '',
  pieces: 'one',
  mostPanels: '10',
  columns: '2',
  rows: '2',
  gap: '0',
  posting: 'as read',
  keptIn: 'sheet',
  sheet: 'My places',
  from: null,
};

/** A draft that begins with the numbers of a place. */
export function draftFrom(place: Place, sheet: string): PlaceDraft {
  const free = typeof place.height === 'object' ? place.height : null;
  return {
    ...emptyDraft,
    name: place.name,
    purpose: place.purpose,
    measure: free ? 'free height' : 'sides',
    width: String(place.width),
    height: typeof place.height === 'number' ? String(place.height) : emptyDraft.height,
    leastHeight: String(free?.min ?? emptyDraft.leastHeight),
    greatestHeight: String(free?.max ?? emptyDraft.greatestHeight),
    formats: [...place.formats],
    limit: String(Number(inUnit(place.limit.bytes, place.limit.unit).toFixed(3))),
    unit: place.limit.unit,
    shape: place.shape,
    shownWidths: place.shownWidths.join(', '),
    pieces: place.group ? 'copied' : 'one',
    sheet,
    from: place,
  };
}

const piecesWords = `From 2 to ${frameBounds.pieces} panels, or columns and rows of at most ${frameBounds.pieces} tiles in all, with gaps of 0 to 20 % of a tile.`;

/** A number as people type it; NaN where it is none. */
const numberOf = (text: string) => (text.trim() === '' ? Number.NaN : Number(text.trim().replace(',', '.')));

/** The sides that a ratio and a long edge make, in whole pixels. */
export function sidesOfRatio(draft: Pick<PlaceDraft, 'ratioWidth' | 'ratioHeight' | 'longEdge'>) {
  const [across, down, long] = [draft.ratioWidth, draft.ratioHeight, draft.longEdge].map(numberOf);
  if (!across || !down || !long || across <= 0 || down <= 0) return null;
  const scale = long / Math.max(across, down);
  return { width: Math.round(across * scale), height: Math.round(down * scale) };
}

function measured(draft: PlaceDraft): Pick<Place, 'width' | 'height'> | null {
  if (draft.measure === 'ratio') return sidesOfRatio(draft);
  const width = numberOf(draft.width);
  if (draft.measure === 'sides') return { width, height: numberOf(draft.height) };
  return { width, height: { min: numberOf(draft.leastHeight), max: numberOf(draft.greatestHeight) } };
}

export type PlaceProblems = Partial<
  Record<'name' | 'measure' | 'formats' | 'limit' | 'shownWidths' | 'pieces' | 'sheet', string>
>;

/** How the pieces of a draft belong together; undefined for one picture. Not yet validated. */
function groupOf(draft: PlaceDraft): unknown {
  if (draft.pieces === 'copied') return draft.from?.group;
  if (draft.pieces === 'panels') return { kind: 'panels', min: 2, max: numberOf(draft.mostPanels) };
  if (draft.pieces === 'one') return undefined;
  const [columns, rows] = [numberOf(draft.columns), numberOf(draft.rows)];
  const isGrid =
    Number.isInteger(columns) &&
    Number.isInteger(rows) &&
    columns > 0 &&
    rows > 0 &&
    columns * rows <= frameBounds.pieces;
  const numbers = isGrid ? uploadNumbers(columns, rows, draft.posting) : [];
  const postingOrder = numbers.map((_, index) => numbers.indexOf(index + 1));
  return { kind: 'block', columns, rows, gap: numberOf(draft.gap) / 100, postingOrder };
}

/** What a draft says, or what is wrong with it and what to do, by field. */
export function readDraft(
  draft: PlaceDraft,
  projectId: string | undefined,
): { place: OwnPlace; keptIn: KeptIn } | { problems: PlaceProblems } {
  const problems: PlaceProblems = {};
  const sides = measured(draft);
  const shown = draft.shownWidths.split(/[,;\s]+/).filter((word) => word !== '');
  const limit = numberOf(draft.limit);
  if (!(limit > 0)) problems.limit = 'The limit is a number above 0, such as 5 or 0.3.';
  if (shown.some((word) => !/^[1-9]\d*$/.test(word))) {
    problems.shownWidths = 'Widths are whole pixels with commas between, such as 360, 120.';
  }
  if (!draft.formats.some((format) => format === 'jpeg' || format === 'png')) {
    problems.formats = 'Tick JPEG or PNG: these are the formats that files are written in.';
  }
  if (draft.pieces !== 'one' && draft.measure === 'free height') {
    problems.measure = 'Pieces are all of one height: give a width and a height.';
  }
  if (!sides) problems.measure = 'A ratio has two numbers above 0, such as 3 : 2, and a long edge in pixels.';
  const keptIn = KeptInSchema.safeParse(
    draft.keptIn === 'project' ? { kind: 'project', projectId } : { kind: 'sheet', name: draft.sheet },
  );
  if (!keptIn.success) problems.sheet = keptIn.error.issues[0]?.message ?? 'Say where to keep it.';
  const parsed = OwnPlaceSchema.safeParse({
    name: draft.name,
    purpose: draft.purpose,
    ...(sides ?? { width: placeSides.least, height: placeSides.least }),
    formats: draft.formats,
    limit: { bytes: limit > 0 ? Math.max(1, bytesOf(limit, draft.unit)) : 1, unit: draft.unit },
    shape: draft.shape,
    group: groupOf(draft),
    shownWidths: problems.shownWidths ? [] : [...new Set(shown.map(Number))].sort((a, b) => b - a),
    ...(draft.from && sides ? areasScaled(draft.from, sides) : {}),
  });
  for (const issue of parsed.error?.issues ?? []) {
    const [part] = issue.path;
    const field = part === 'name' || part === 'formats' ? part : part === 'group' ? 'pieces' : 'measure';
    problems[field] ??= field === 'pieces' ? piecesWords : issue.message;
  }
  if (Object.keys(problems).length > 0 || !parsed.success || !keptIn.success) return { problems };
  return { place: parsed.data, keptIn: keptIn.data };
}

/** Covered areas and the part that is always shown, in the proportions that they have at the place they come from. */
function areasScaled(
  from: Place,
  to: Pick<Place, 'width' | 'height'>,
): Partial<Pick<Place, 'covered' | 'shownPart' | 'note'>> {
  if (typeof from.height !== 'number' || typeof to.height !== 'number') return {};
  const [x, y] = [to.width / from.width, to.height / from.height];
  const scaled = (area: Area): Area => ({
    ...area,
    left: area.left * x,
    top: area.top * y,
    width: area.width * x,
    height: area.height * y,
  });
  return {
    covered: from.covered.map(scaled),
    ...(from.shownPart ? { shownPart: scaled(from.shownPart) } : {}),
    ...(from.note ? { note: from.note } : {}),
  };
}
