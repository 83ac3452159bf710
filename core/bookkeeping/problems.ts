import type { z } from 'zod';
import { type Place, PlaceSchema, SheetContentSchema } from '../model/index.ts';
import { type PlaceField, placeFields, type SheetField, sheetFields } from './fields.ts';

/** One thing that is wrong with a sheet, where its form has it. */
export interface SheetProblem {
  /** The place that it is about; null where it is about the sheet itself. */
  place: string | null;
  field: PlaceField | SheetField | null;
  /** Place and field in the words of the form. */
  where: string;
  message: string;
}

/** Properties of a place that are part of another field of its form. */
const partOf: Record<string, PlaceField> = {
  width: 'dimensions',
  height: 'dimensions',
  otherDimensions: 'dimensions',
  multipleOf: 'dimensions',
  mostPixels: 'dimensions',
  formatLimits: 'limit',
  postLimit: 'limit',
};

const isPlaceField = (part: string): part is PlaceField => part in placeFields;
const isSheetField = (part: string): part is SheetField => part in sheetFields;

/** The field of a place's form that a part of its path is about; null where none has it. */
const placeFieldOf = (part: unknown): PlaceField | null =>
  typeof part !== 'string' ? null : (partOf[part] ?? (isPlaceField(part) ? part : null));

/** What is wrong with a place, by the field of its form; the first of each. */
export function placeProblems(place: unknown): Partial<Record<PlaceField, string>> {
  const found: Partial<Record<PlaceField, string>> = {};
  for (const { path, message } of PlaceSchema.safeParse(place).error?.issues ?? []) {
    found[placeFieldOf(path[0]) ?? 'name'] ??= message;
  }
  return found;
}

/** Where in a sheet something is wrong, in the words of its form. @param path from the sheet on */
function problemAt(content: unknown, path: readonly PropertyKey[], message: string): SheetProblem {
  const [first, index, part] = path;
  if (first !== 'places' || typeof index !== 'number') {
    const field = typeof first === 'string' && isSheetField(first) ? first : null;
    return { place: null, field, where: field ? sheetFields[field].label : 'This sheet', message };
  }
  const places = (content as { places?: Partial<Record<keyof Place, unknown>>[] } | null)?.places;
  const { name, slug } = places?.[index] ?? {};
  const field = placeFieldOf(part);
  // What is wrong may be the name itself, which is of any kind then.
  const called = typeof name === 'string' && name !== '' ? name : `Place ${index + 1}`;
  const where = `“${called}”${field ? `, ${placeFields[field].label}` : ''}`;
  return { place: typeof slug === 'string' ? slug : null, field, where, message };
}

/** Everything that is wrong with a sheet, in the order of its form. */
export const sheetProblems = (content: unknown): SheetProblem[] =>
  problemsIn(content, SheetContentSchema.safeParse(content).error);

/** The same of what was found out already. */
export const problemsIn = (content: unknown, error: z.ZodError | undefined): SheetProblem[] =>
  (error?.issues ?? []).map(({ path, message }) => problemAt(content, path, message));

/** A problem as a sentence. */
export const problemWords = ({ where, message }: SheetProblem): string => `${where}: ${message.replace(/\.?$/, '.')}`;
