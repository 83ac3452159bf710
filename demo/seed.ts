import { randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { join } from 'node:path';
import { sinceOf } from '@inkwell/core/bookkeeping';
import type { Original } from '@inkwell/core/model';
import { BoundedFolder } from '@inkwell/server/imaging/copies/boundedFolder.ts';
import { WorkingCopies } from '@inkwell/server/imaging/copies/workingCopy.ts';
import { Decoders } from '@inkwell/server/imaging/intake/processes/decoders.ts';
import { readSettings } from '@inkwell/server/settings/settings.ts';
import { shippedPlaces } from '@inkwell/server/standins/shippedSheets.ts';
import { firstWorkspace } from '@inkwell/server/store/access/workspaces.ts';
import { blobToFile } from '@inkwell/server/store/blobs/blobs.ts';
import { openDatabase } from '@inkwell/server/store/database.ts';
import { renameOriginal, saveOriginalSettings } from '@inkwell/server/store/library/originals.ts';
import { addPlaceSet } from '@inkwell/server/store/library/placeSets.ts';
import { addSheet, addVersion } from '@inkwell/server/store/library/sheets.ts';
import { reachMilestone } from '@inkwell/server/store/milestones.ts';
import { changeFrames } from '@inkwell/server/store/projects/frames.ts';
import { addProject, changeOriginals } from '@inkwell/server/store/projects/projects.ts';
import { Importing } from '@inkwell/server/tasks/library/importing.ts';
import pLimit from 'p-limit';
import { type PictureKey, paintedAside, pictures } from './make.ts';
import {
  demoAltTexts,
  demoFinishes,
  demoFrames,
  demoLettering,
  demoMarks,
  demoPosting,
  demoSettings,
  projectFinish,
  projectName,
} from './project.ts';
import { demoSet, demoSheet } from './sheet.ts';

const settings = readSettings(process.env);
const { whole, fenced, close } = await openDatabase(settings.DATABASE_URL);
const db = fenced(await firstWorkspace(whole));
const keys = Object.keys(pictures) as PictureKey[];

/** The workshop's own sheet, with its versions, and its set of places. */
async function keepSheet(): Promise<void> {
  const [first, second] = demoSheet.versions;
  if (!first || !second) throw new Error('The sheet of the demo has two versions.');
  await db.transaction(async (tx) => {
    const row = await addSheet(tx, { slug: demoSheet.slug }, first.content, first.words);
    const began = Object.fromEntries(first.content.places.map(({ slug }) => [slug, 1]));
    await addVersion(tx, row, second.content, sinceOf(began, first.content, second.content, 2), second.words);
  });
  await addPlaceSet(db, demoSet);
}

try {
  // Once in the life of a database: what people have deleted does not come back.
  await reachMilestone(db, 'demo', async () => {
    console.log('Painting the pictures of the demo; this takes about a minute, once …');
    const cache = await BoundedFolder.open(join(settings.INKWELL_DATA, 'cache', 'working'), Number.MAX_SAFE_INTEGER);
    const decoders = new Decoders();
    const copies = await WorkingCopies.open(cache, (sha256, path) => blobToFile(db, sha256, path), decoders);
    const importing = await Importing.open(join(settings.INKWELL_DATA, 'incoming'), db, copies, decoders, false);
    const originals = new Map<PictureKey, Original>();
    // Two are painted at a time, and taken in in their order, which is the order of the library.
    const painting = pLimit(2);
    const painted = keys.map((key) => {
      return { key, path: painting(() => paintedAside(key, join(settings.INKWELL_DATA, 'demo-art'))) };
    });
    const takeInOrder = async () => {
      for (const { key, path } of painted) {
        const original = await importing.take(createReadStream(await path), pictures[key].file);
        await renameOriginal(db, original.id, pictures[key].name);
        const marks = demoMarks[key]?.map((mark) => ({ ...mark, id: randomUUID() }));
        const finishId = demoFinishes[key];
        const altText = demoAltTexts[key];
        if (marks || finishId || altText) {
          await saveOriginalSettings(db, original.id, original.version, {
            ...(marks ? { marks } : {}),
            ...(finishId ? { finishId } : {}),
            ...(altText ? { words: { ...original.words, altText } } : {}),
          });
        }
        originals.set(key, original);
      }
    };
    await Promise.all([takeInOrder(), ...painted.map(({ path }) => path)]);

    await keepSheet();
    const places = shippedPlaces();
    const id = await addProject(db, projectName, {
      finishId: projectFinish,
      lettering: demoLettering(originals, randomUUID),
      posting: demoPosting,
    });
    const chosen = demoFrames.flatMap(({ picture, frames }) => {
      const original = originals.get(picture);
      return original ? [{ original, frames }] : [];
    });
    await changeOriginals(
      db,
      id,
      chosen.map(({ original }) => original.id),
      [],
    );
    const frames = chosen.flatMap(({ original, frames }) =>
      frames.map((frame) => {
        const [placeId] = frame;
        const place = places.get(placeId)?.place;
        if (!place) throw new Error(`The demo names a place that is not in the spec book: ${placeId}`);
        return { projectId: id, originalId: original.id, placeId, ...demoSettings(frame, original, place) };
      }),
    );
    await changeFrames(db, id, frames, []);
    decoders.end();
  });
  await close();
} catch (error) {
  const why = error instanceof Error ? error.message : String(error);
  console.error(`The demo could not be made. ${why}\nOnce that is mended, ./inkwell demo begins again.`);
  process.exit(1);
}
