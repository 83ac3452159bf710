import { problemsIn, problemWords } from '@inkwell/core/bookkeeping';
import {
  KeptInSchema,
  type OwnPlace,
  OwnPlaceSchema,
  type SheetContent,
  SheetContentSchema,
  SlugSchema,
  VersionWordsSchema,
} from '@inkwell/core/model';
import { Router } from 'express';
import { z } from 'zod';
import type { Services } from '../../services.ts';
import { addPlace, makeSheet, saveSheet } from '../../tasks/book/changeSheets.ts';
import { sheetVersions } from '../../tasks/book/sheetContents.ts';
import { sheetEffects } from '../../tasks/book/sheetEffects.ts';
import { moveSheet, putSheetAway } from '../../tasks/book/shelf.ts';
import { UserError } from '../../userError.ts';
import { idOf } from '../params.ts';

/** Sheets have a check of their own, which names what is wrong as the form does. */
const AnyContentSchema = z.unknown();
const WordedSchema = z.object({ content: AnyContentSchema, words: VersionWordsSchema });
export const MakeSheetSchema = WordedSchema.extend({ content: SheetContentSchema });
export const SaveSheetSchema = z.object({ version: z.int32().positive(), change: MakeSheetSchema });
export const EffectsSchema = MakeSheetSchema.pick({ content: true });

/** A sheet as somebody has written it. @throws UserError that names its field */
function contentOf(content: unknown): SheetContent {
  const read = SheetContentSchema.safeParse(content);
  if (read.success) return read.data;
  const [first, ...others] = problemsIn(content, read.error);
  const more =
    others.length > 0 ? ` ${others.length} more ${others.length === 1 ? 'thing is' : 'things are'} wrong.` : '';
  throw new UserError(`${first ? problemWords(first) : 'This sheet could not be understood.'}${more}`, 400);
}
export const AddPlaceSchema = z.object({ place: OwnPlaceSchema, keptIn: KeptInSchema });

/** A place as somebody has written it. @throws UserError that names its field */
function ownPlaceOf(place: unknown): OwnPlace {
  const read = OwnPlaceSchema.safeParse(place);
  if (read.success) return read.data;
  const issues = read.error.issues.map((issue) => ({ ...issue, path: ['places', 0, ...issue.path] }));
  const [first] = problemsIn({ places: [place] }, new z.ZodError(issues));
  throw new UserError(first ? problemWords(first) : 'This place could not be understood.', 400);
}
export const AwaySchema = z.object({ slug: SlugSchema, isAway: z.boolean() });
export const MoveSchema = z.object({ slug: SlugSchema, before: SlugSchema.nullable() });

/** The sheets of the spec book: made, changed version by version, put away and in order. */
export function sheetsRouter(services: Services): Router {
  const router = Router();

  router.post('/', async (request, response) => {
    const { content, words } = WordedSchema.parse(request.body);
    response.status(201).json(await makeSheet(services, contentOf(content), words));
  });

  router.post('/places', async (request, response) => {
    const { place, keptIn } = AddPlaceSchema.extend({ place: AnyContentSchema }).parse(request.body);
    response.status(201).json(await addPlace(services, ownPlaceOf(place), keptIn));
  });

  router.post('/away', async (request, response) => {
    const { slug, isAway } = AwaySchema.parse(request.body);
    await putSheetAway(services, slug, isAway);
    response.status(204).end();
  });

  router.post('/order', async (request, response) => {
    const { slug, before } = MoveSchema.parse(request.body);
    await moveSheet(services, slug, before);
    response.status(204).end();
  });

  router.get('/:id/versions', async (request, response) => {
    response.json(await sheetVersions(services, idOf(request)));
  });

  router.patch('/:id', async (request, response) => {
    const { version, change } = SaveSheetSchema.extend({ change: WordedSchema }).parse(request.body);
    response.json(await saveSheet(services, idOf(request), version, contentOf(change.content), change.words));
  });

  // What a change would do, before it is saved.
  router.post('/:id/effects', async (request, response) => {
    const { content } = z.object({ content: AnyContentSchema }).parse(request.body);
    response.json(await sheetEffects(services, idOf(request), contentOf(content)));
  });

  return router;
}
