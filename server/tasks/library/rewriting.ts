import { Readable } from 'node:stream';
import type { DrawnTexts, OpenProject, Original, Rewriting } from '@inkwell/core/model';
import { newPath } from '../../imaging/rewriting/newPath.ts';
import { readTexts, replaceTexts } from '../../imaging/rewriting/rewriting.ts';
import type { SvgText } from '../../imaging/rewriting/svgTexts.ts';
import type { Services } from '../../services.ts';
import { blobBytes } from '../../store/blobs/blobs.ts';
import type { Queryable } from '../../store/database.ts';
import { findEvenPutAside, findOriginal } from '../../store/library/originals.ts';
import { exchangeOriginal, putAsideIfUnused } from '../../store/projects/exchangeOriginal.ts';
import { framesOfProject } from '../../store/projects/frames.ts';
import { openProject } from '../../store/projects/projects.ts';
import { orNotFound, UserError } from '../../userError.ts';
import { saveAndMeasure } from '../plans/saveAndMeasure.ts';

type Stores = Pick<Services, 'db' | 'planner' | 'importing'>;
const what = 'This project';

/** The drawing that an original's words came with: itself, unless it was rewritten. Null where that is gone for good. */
const sourceOf = async (db: Queryable, original: Original): Promise<Original | null> =>
  original.rewritten ? findEvenPutAside(db, original.rewritten.from) : original;

async function svgOf({ db }: Pick<Services, 'db'>, { sha256 }: Original): Promise<string> {
  const bytes = orNotFound(await blobBytes(db, sha256), 'The file of this original');
  return new TextDecoder().decode(bytes);
}

/** The texts of a drawing that are still text, and how they are rewritten; none of a picture that is no drawing. */
export async function drawnTexts(services: Pick<Services, 'db'>, id: string): Promise<DrawnTexts> {
  const original = orNotFound(await findOriginal(services.db, id), 'This original');
  const rewriting = original.rewritten && { family: original.rewritten.family, words: original.rewritten.words };
  const source = original.format === 'svg' ? await sourceOf(services.db, original) : null;
  const texts = source ? await readTexts(await svgOf(services, source)) : [];
  return { texts: texts.map(({ at, text }) => ({ at, text })), rewriting };
}

/**
 * Makes a drawing of its own that says something else, and puts it in the place of the one that a project has: the marks and all frames
 * stay. With no words replaced, the drawing that they came with is put back.
 *
 * @throws UserError where it is no drawing, a text is not there, or no font has what it is to say
 */
export async function rewriteOriginal(
  services: Stores,
  projectId: string,
  originalId: string,
  { family, words }: Rewriting,
): Promise<OpenProject> {
  const { db } = services;
  const project = orNotFound(await openProject(db, projectId), what);
  const original = project.originals.find(({ id }) => id === originalId);
  if (!original) throw new UserError('This picture is not in this project. Choose one that is.', 404);
  if (original.format !== 'svg')
    throw new UserError('Only words of an SVG can be replaced: of other pictures they are pixels.');
  const source = await sourceOf(db, original);
  if (!source)
    throw new UserError('The drawing that these words came with is gone. Take it in again and choose that.', 409);
  const svg = await svgOf(services, source);
  const texts = await readTexts(svg);
  const changed = words.flatMap(({ at, text }) => {
    const there = texts.find((one) => one.at === at);
    if (!there) throw new UserError(`This drawing has no text ${at + 1}. Open it again to see those that it has.`);
    return there.text === text ? [] : [{ there, text }];
  });
  if (changed.length === 0 && !original.rewritten) return project;
  const next =
    changed.length === 0 ? source : await rewrittenOf(services, original, { source, svg, family, words: changed });
  await saveAndMeasure(
    services,
    async (tx) => {
      await exchangeOriginal(tx, projectId, original.id, next.id);
      // What nobody has chosen and can be made again only lies about.
      if (original.rewritten) await putAsideIfUnused(tx, original.id);
    },
    (tx) => framesOfProject(tx, projectId),
  ).catch(async (error: unknown) => {
    if (next !== source) await putAsideIfUnused(db, next.id);
    throw error;
  });
  return orNotFound(await openProject(db, projectId), what);
}

interface NewDrawing {
  source: Original;
  svg: string;
  family: string;
  words: readonly { there: SvgText; text: string }[];
}

/** A new original over a drawing that says something else. */
async function rewrittenOf(
  { planner, importing }: Stores,
  before: Original,
  { source, svg, family, words }: NewDrawing,
): Promise<Original> {
  const { book } = await planner.open();
  const paths = words.map(({ there, text }) => newPath(there, text, family, book));
  const drawing = Buffer.from(await replaceTexts(svg, paths));
  return importing.take(Readable.from([drawing]), source.fileName, undefined, {
    name: before.rewritten ? before.name : `${before.name}, other words`.slice(-120),
    rewritten: { from: source.id, family, words: words.map(({ there, text }) => ({ at: there.at, text })) },
  });
}
