import { problemsIn, problemWords } from '@inkwell/core/bookkeeping';
import {
  AddedPlaceSchema,
  KeptInSchema,
  type OwnPlace,
  OwnPlaceSchema,
  type SheetContent,
  SheetContentSchema,
  SheetEffectsSchema,
  SheetVersionSchema,
  SlugSchema,
  SpecSheetSchema,
  VersionWordsSchema,
} from '@inkwell/core/model';
import { z } from 'zod';
import type { Services } from '../../../services.ts';
import { addPlace, makeSheet, saveSheet } from '../../../tasks/book/changeSheets.ts';
import { sheetVersions } from '../../../tasks/book/sheetContents.ts';
import { sheetEffects } from '../../../tasks/book/sheetEffects.ts';
import { moveSheet, putSheetAway } from '../../../tasks/book/shelf.ts';
import { UserError } from '../../../userError.ts';
import { Resource } from '../../contracts/resource.ts';

/** Sheets have a check of their own, which names what is wrong as the form does. */
const AnyContentSchema = z.unknown();
const WordedSchema = z.object({ content: AnyContentSchema, words: VersionWordsSchema });
const MakeSheetSchema = WordedSchema.extend({ content: SheetContentSchema });
const versioned = { version: z.int32().positive() };
const PlaceInSchema = z.object({ place: OwnPlaceSchema, keptIn: KeptInSchema });
const AwaySchema = z.object({ slug: SlugSchema, isAway: z.boolean() });
const MoveSchema = z.object({ slug: SlugSchema, before: SlugSchema.nullable() });

/** A sheet as somebody has written it. @throws UserError that names its field */
function contentOf(content: unknown): SheetContent {
  const read = SheetContentSchema.safeParse(content);
  if (read.success) return read.data;
  const [first, ...others] = problemsIn(content, read.error);
  const more =
    others.length > 0 ? ` ${others.length} more ${others.length === 1 ? 'thing is' : 'things are'} wrong.` : '';
  throw new UserError(`${first ? problemWords(first) : 'This sheet could not be understood.'}${more}`, 400);
}

/** A place as somebody has written it. @throws UserError that names its field */
function ownPlaceOf(place: unknown): OwnPlace {
  const read = OwnPlaceSchema.safeParse(place);
  if (read.success) return read.data;
  const issues = read.error.issues.map((issue) => ({ ...issue, path: ['places', 0, ...issue.path] }));
  const [first] = problemsIn({ places: [place] }, new z.ZodError(issues));
  throw new UserError(first ? problemWords(first) : 'This place could not be understood.', 400);
}

/** The sheets of the spec book: made, changed version by version, put away and in order. */
export function sheets(services: Services): Resource {
  const routes = new Resource('/sheets', 'Sheets');

  routes.post(
    '',
    {
      does: 'Makes a sheet.',
      takes: WordedSchema,
      described: MakeSheetSchema,
      answers: SpecSheetSchema,
      status: 201,
    },
    ({ body }) => makeSheet(services, contentOf(body.content), body.words),
  );

  routes.post(
    '/places',
    {
      does: 'Adds a place to a sheet of one’s own, or to a new one.',
      takes: PlaceInSchema.extend({ place: AnyContentSchema }),
      described: PlaceInSchema,
      answers: AddedPlaceSchema,
      status: 201,
    },
    ({ body }) => addPlace(services, ownPlaceOf(body.place), body.keptIn),
  );

  routes.post('/away', { does: 'Puts a sheet away, or takes it back.', takes: AwaySchema }, async ({ body }) => {
    await putSheetAway(services, body.slug, body.isAway);
  });

  routes.post(
    '/order',
    { does: 'Moves a sheet before another, or to the end.', takes: MoveSchema },
    async ({ body }) => {
      await moveSheet(services, body.slug, body.before);
    },
  );

  routes.get(
    '/:id/versions',
    { does: 'All versions of a sheet, the newest first.', answers: z.array(SheetVersionSchema) },
    ({ id }) => sheetVersions(services, id),
  );

  routes.patch(
    '/:id',
    {
      does: 'Saves a sheet as a new version. Answers 409 with the newest, where that is not the one named.',
      takes: z.object({ ...versioned, change: WordedSchema }),
      described: z.object({ ...versioned, change: MakeSheetSchema }),
      answers: SpecSheetSchema,
    },
    ({ id, body: { version, change } }) => saveSheet(services, id, version, contentOf(change.content), change.words),
  );

  routes.post(
    '/:id/effects',
    {
      does: 'What a change of a sheet would do, before it is saved.',
      takes: z.object({ content: AnyContentSchema }),
      described: MakeSheetSchema.pick({ content: true }),
      answers: SheetEffectsSchema,
      changesNothing: true,
    },
    ({ id, body }) => sheetEffects(services, id, contentOf(body.content)),
  );

  return routes;
}
