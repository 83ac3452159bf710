import {
  type Area,
  emptySheet,
  type Group,
  type ImageFormat,
  ImageFormatSchema,
  type Limit,
  NumberSchema,
  type Place,
  type SheetFile,
} from '../../model/index.ts';

/** A row of a table, by the names of its columns. Empty cells are left out. */
export type Row = Record<string, string>;
/** What is read from a row: not validated yet. */
export type Read = Record<string, unknown>;

const formats = ImageFormatSchema.options;
const areaParts = ['left', 'top', 'width', 'height', 'shape', 'reason'] as const;

/** Words that a spreadsheet would take for a formula get an apostrophe, as do those that begin with one before such a sign. */
const asText = (text: string): string => (/^'*[=+\-@\t\r]/.test(text) ? `'${text}` : text);
const fromText = (cell: string): string => (/^'+[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell);

/** A number as it is; where there is none, an empty cell. */
const figure = (value: number | undefined): string => (value === undefined ? '' : String(value));
/** A cell that is to be a number; what is none is left as it is, so that its field refuses it. */
const numberIn = (cell: string | undefined): unknown => {
  if (cell === undefined) return undefined;
  const value = Number(cell.replace(',', '.'));
  return Number.isFinite(value) ? value : cell;
};
const listIn = (cell: string | undefined): string[] => (cell ?? '').split(/[\s;,]+/).filter((word) => word !== '');

/** Without what is undefined: an empty cell says nothing. */
const filled = <Of extends object>(of: Of): Of =>
  Object.fromEntries(Object.entries(of).filter(([, value]) => value !== undefined)) as Of;
const orNothing = (of: object): object | undefined => (Object.keys(filled(of)).length > 0 ? filled(of) : undefined);

const limitCells = (name: string, limit: Limit | undefined): Row => ({
  [`${name}_bytes`]: figure(limit?.bytes),
  [`${name}_unit`]: limit?.unit ?? '',
});
const limitIn = (row: Row, name: string) =>
  orNothing({ bytes: numberIn(row[`${name}_bytes`]), unit: row[`${name}_unit`] });

const areaCells = (name: string, area: Area | undefined): Row =>
  Object.fromEntries(
    areaParts.map((part) => [
      `${name}_${part}`,
      area === undefined ? '' : part === 'reason' ? asText(area.reason) : String(area[part]),
    ]),
  );
const areaIn = (row: Row, name: string) => {
  const [left, top, width, height, shape, reason] = areaParts.map((part) => row[`${name}_${part}`]);
  return orNothing({
    left: numberIn(left),
    top: numberIn(top),
    width: numberIn(width),
    height: numberIn(height),
    shape,
    reason: reason === undefined ? undefined : fromText(reason),
  });
};

/** What a row says of its sheet. */
function sheetCells({ slug, ...sheet }: Omit<SheetFile, 'places'>): Row {
  const { name, kind, checkedOn, source, sureness, recheckDays, afterUpload: after, otherSides } = sheet;
  return {
    sheet_id: slug,
    sheet: asText(name),
    kind: asText(kind),
    sheet_checked_on: checkedOn,
    sheet_source: asText(source),
    sheet_sureness: sureness,
    check_again_days: String(recheckDays),
    after_long_edge: figure(after?.longEdge),
    after_kernel: after?.kernel ?? '',
    after_format: after?.format ?? '',
    after_quality: figure(after?.quality),
    after_chroma: after?.chroma ?? '',
    after_colours: after?.colours ?? '',
    other_sides_least: figure(otherSides?.least),
    other_sides_most: figure(otherSides?.most),
  };
}

/** What a row says of its sheet, to be validated. */
export function sheetIn(row: Row): Read {
  const after = {
    longEdge: numberIn(row.after_long_edge),
    kernel: row.after_kernel,
    format: row.after_format,
    quality: numberIn(row.after_quality),
    chroma: row.after_chroma,
    colours: row.after_colours,
  };
  return filled({
    slug: row.sheet_id,
    name: row.sheet === undefined ? undefined : fromText(row.sheet),
    kind: row.kind === undefined ? undefined : fromText(row.kind),
    checkedOn: row.sheet_checked_on,
    source: row.sheet_source === undefined ? undefined : fromText(row.sheet_source),
    sureness: row.sheet_sureness,
    recheckDays: numberIn(row.check_again_days),
    afterUpload: orNothing(after),
    otherSides: orNothing({ least: numberIn(row.other_sides_least), most: numberIn(row.other_sides_most) }),
  });
}

function dimensionCells({ width, height, otherDimensions: other, multipleOf, mostPixels }: Place): Row {
  const isFree = typeof height !== 'number';
  const range = other?.kind === 'ratios' ? other : undefined;
  const list = other?.kind === 'list' ? other.dimensions : [];
  return {
    width: String(width),
    height: isFree ? '' : String(height),
    least_height: isFree ? String(height.min) : '',
    greatest_height: isFree ? String(height.max) : '',
    other_dimensions: list.map((one) => `${one.width}x${one.height}`).join(' '),
    least_ratio: figure(range?.least),
    greatest_ratio: figure(range?.most),
    least_side: figure(range?.leastSide),
    greatest_side: figure(range?.mostSide),
    divisible_by: figure(multipleOf),
    most_pixels: figure(mostPixels),
  };
}

function dimensionsIn(row: Row): Read {
  const free = orNothing({ min: numberIn(row.least_height), max: numberIn(row.greatest_height) });
  const range = orNothing({
    least: numberIn(row.least_ratio),
    most: numberIn(row.greatest_ratio),
    leastSide: numberIn(row.least_side),
    mostSide: numberIn(row.greatest_side),
  });
  const list = listIn(row.other_dimensions).map((words) => {
    const [width, height] = words.split(/[x×]/i).map((side) => numberIn(side));
    return { width, height };
  });
  const other = range ? { kind: 'ratios', ...range } : list.length > 0 ? { kind: 'list', dimensions: list } : undefined;
  return {
    width: numberIn(row.width),
    height: free ?? numberIn(row.height),
    otherDimensions: other,
    multipleOf: numberIn(row.divisible_by),
    mostPixels: numberIn(row.most_pixels),
  };
}

function groupCells(group: Group | undefined): Row {
  const panels = group?.kind === 'panels' ? group : undefined;
  const block = group?.kind === 'block' ? group : undefined;
  const quilt = group?.kind === 'quilt' ? group : undefined;
  return {
    pieces: group?.kind ?? '',
    least_panels: figure(panels?.min),
    most_panels: figure(panels?.max),
    columns: figure((block ?? quilt)?.columns),
    rows: figure(block?.rows),
    least_rows: figure(quilt?.minRows),
    most_rows: figure(quilt?.maxRows),
    gap: figure((block ?? quilt)?.gap),
    upload_order: block ? block.postingOrder.map((index) => index + 1).join(' ') : (quilt?.posting ?? ''),
  };
}

function groupIn(row: Row): unknown {
  const { pieces: kind } = row;
  if (kind === undefined) return undefined;
  if (kind === 'panels') return { kind, min: numberIn(row.least_panels), max: numberIn(row.most_panels) };
  const tiles = { kind, columns: numberIn(row.columns), gap: numberIn(row.gap) };
  if (kind === 'quilt') {
    return { ...tiles, minRows: numberIn(row.least_rows), maxRows: numberIn(row.most_rows), posting: row.upload_order };
  }
  const postingOrder = listIn(row.upload_order).map((word) => Number(word) - 1);
  return { ...tiles, rows: numberIn(row.rows), postingOrder };
}

function placeCells(place: Place, areas: number): Row {
  const { formatLimits = {}, wishes, provenance = {} } = place;
  const covered = Array.from({ length: areas }, (_, index) => areaCells(`covered_${index + 1}`, place.covered[index]));
  const own = NumberSchema.options.map((number) => ({
    [`${number}_checked_on`]: provenance[number]?.checkedOn ?? '',
    [`${number}_source`]: asText(provenance[number]?.source ?? ''),
    [`${number}_sureness`]: provenance[number]?.sureness ?? '',
  }));
  return Object.assign(
    {
      place_id: place.slug,
      place: asText(place.name),
      purpose: place.purpose,
      put_away: place.isAway === undefined ? '' : place.isAway ? 'yes' : 'no',
    },
    dimensionCells(place),
    { formats: place.formats.join(' ') },
    limitCells('limit', place.limit),
    ...formats.map((format) => limitCells(`${format}_limit`, formatLimits[format])),
    limitCells('post_limit', place.postLimit),
    limitCells('wished', wishes?.weight),
    {
      wished_formats: (wishes?.formats ?? []).join(' '),
      shape: place.shape,
      shown_widths: place.shownWidths.join(' '),
    },
    groupCells(place.group),
    { note: place.note === undefined ? '' : asText(place.note) },
    areaCells('shown', place.shownPart),
    ...covered,
    ...own,
  );
}

/** What a row says of its place, to be validated; null where it only says something of its sheet. */
export function placeIn(row: Row): Read | null {
  if (row.place_id === undefined && row.place === undefined) return null;
  const limits = formats.flatMap((format): [ImageFormat, object][] => {
    const limit = limitIn(row, `${format}_limit`);
    return limit ? [[format, limit]] : [];
  });
  const wished = listIn(row.wished_formats);
  const wishes = orNothing({ weight: limitIn(row, 'wished'), formats: wished.length > 0 ? wished : undefined });
  const provenance = NumberSchema.options.flatMap((number): [string, object][] => {
    const checkedOn = row[`${number}_checked_on`];
    const source = row[`${number}_source`];
    const own = orNothing({
      checkedOn,
      source: source === undefined ? undefined : fromText(source),
      sureness: row[`${number}_sureness`],
    });
    return own ? [[number, own]] : [];
  });
  return filled({
    slug: row.place_id,
    name: row.place === undefined ? undefined : fromText(row.place),
    purpose: row.purpose,
    isAway: row.put_away === undefined ? undefined : row.put_away === 'yes',
    ...dimensionsIn(row),
    formats: listIn(row.formats),
    limit: limitIn(row, 'limit'),
    formatLimits: limits.length > 0 ? Object.fromEntries(limits) : undefined,
    postLimit: limitIn(row, 'post_limit'),
    wishes,
    shape: row.shape,
    shownWidths: listIn(row.shown_widths).map((word) => numberIn(word)),
    group: groupIn(row),
    note: row.note === undefined ? undefined : fromText(row.note),
    shownPart: areaIn(row, 'shown'),
    covered: coveredIn(row),
    provenance: provenance.length > 0 ? Object.fromEntries(provenance) : undefined,
  });
}

/** All covered areas of a row, however many columns there are for them. */
function coveredIn(row: Row): unknown[] {
  const numbers = Object.keys(row).flatMap((name) => /^covered_(\d+)_/.exec(name)?.[1] ?? []);
  return [...new Set(numbers.map(Number))].sort((a, b) => a - b).flatMap((at) => areaIn(row, `covered_${at}`) ?? []);
}

/** A place that says as little as one can: of it only the names of its columns are asked for. */
const barePlace: Place = {
  slug: 'bare',
  name: '',
  purpose: 'post',
  width: 1,
  height: 1,
  formats: [],
  limit: { bytes: 1, unit: 'kB' },
  shape: 'rectangle',
  covered: [],
  shownWidths: [],
};

/** Sheets as a table: one row for each place, with what its sheet says in every one; one for a sheet that has none. */
export function tableOf(sheets: readonly SheetFile[]): { columns: string[]; rows: Row[] } {
  const areas = Math.max(0, ...sheets.flatMap(({ places }) => places.map(({ covered }) => covered.length)));
  const bare = sheetCells({ slug: 'bare', ...emptySheet('bare', '2000-01-01') });
  const rows = sheets.flatMap(({ places, ...sheet }) => {
    const about = sheetCells(sheet);
    if (places.length === 0) return [about];
    return places.map((place) => ({ ...about, ...placeCells(place, areas) }));
  });
  return { columns: Object.keys({ ...bare, ...placeCells(barePlace, areas) }), rows };
}

/** Columns without which nothing can be read. */
export const neededColumns = ['sheet_id', 'sheet', 'place_id', 'place', 'width'] as const;
