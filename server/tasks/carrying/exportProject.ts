import { placesNamed, sheetsNamed } from '@inkwell/core/carrying';
import { shippedFinishes } from '@inkwell/core/finishing';
import {
  contentOf,
  type EmblemItem,
  type FileOriginal,
  FrameSettingsSchema,
  type OpenProject,
  type Original,
  OriginalSettingsSchema,
  type ProjectFile,
  ProjectSettingsSchema,
} from '@inkwell/core/model';
import yazl from 'yazl';
import type { Services } from '../../services.ts';
import { blobLength, readBlob } from '../../store/blobs/blobs.ts';
import type { Queryable } from '../../store/database.ts';
import { listFinishes } from '../../store/library/finishes.ts';
import { findEvenPutAside } from '../../store/library/originals.ts';
import { listOwnFonts } from '../../store/library/ownFonts.ts';
import { openProject } from '../../store/projects/projects.ts';
import { orNotFound } from '../../userError.ts';
import { bytesEntry, textEntry } from './projectZip.ts';

/** A project as a file: what it says, and the archive with the bytes of its pictures and fonts as a stream. */
export interface ExportedProject {
  file: ProjectFile;
  archive: NodeJS.ReadableStream;
}

/** Writes a project as a file that another machine takes in. @throws UserError where it is not there */
export async function exportProject(
  { db, planner }: Pick<Services, 'db' | 'planner'>,
  id: string,
): Promise<ExportedProject> {
  const project = orNotFound(await openProject(db, id), 'This project');
  const settings = ProjectSettingsSchema.parse(project);
  const frames = project.frames.map(({ originalId, placeId, ...frame }) => ({
    originalId,
    placeId,
    settings: FrameSettingsSchema.parse(frame),
  }));
  const { sheets } = (await planner.open()).bookFor(project);
  const file: ProjectFile = {
    projectFile: 1,
    name: project.name,
    settings,
    originals: [...project.originals.map((one) => fileOriginal(one, true)), ...(await othersOf(db, project))],
    frames,
    sheets: sheetsNamed(
      sheets.map((sheet) => ({ slug: sheet.slug, ...contentOf(sheet) })),
      placesNamed({ settings, frames }),
    ),
    finishes: await finishesOf(db, project),
    fonts: await fontsOf(db, project),
  };
  return { file, archive: archiveOf(db, file) };
}

function archiveOf(db: Queryable, file: ProjectFile): NodeJS.ReadableStream {
  const zip = new yazl.ZipFile();
  zip.addBuffer(Buffer.from(`${JSON.stringify(file, null, 1)}\n`), textEntry);
  const blobs = [
    ...file.originals.map(({ sha256, bytes }) => ({ name: bytesEntry.original(sha256), sha256, bytes })),
    ...file.fonts.map(({ sha256, bytes }) => ({ name: bytesEntry.font(sha256), sha256, bytes })),
  ];
  // Pages of one file, and copies, have the same bytes.
  for (const { name, sha256, bytes } of new Map(blobs.map((blob) => [blob.name, blob])).values()) {
    zip.addReadStreamLazy(name, { size: bytes, compress: false }, (ready) => ready(null, readBlob(db, sha256)));
  }
  zip.end();
  return zip.outputStream;
}

const fileOriginal = (original: Original, isChosen: boolean): FileOriginal => {
  const { id, name, fileName, sha256, bytes, page, rewritten } = original;
  return { id, name, fileName, sha256, bytes, page, rewritten, ...OriginalSettingsSchema.parse(original), isChosen };
};

/** Pictures that a project needs beside those that it has chosen: its emblems, and what its drawings were rewritten from. */
async function othersOf(db: Queryable, project: OpenProject): Promise<FileOriginal[]> {
  const known = new Set(project.originals.map(({ id }) => id));
  const emblems = project.lettering.flatMap((item) => (item.kind === 'emblem' ? [item] : []));
  const others: FileOriginal[] = [];
  const add = (original: FileOriginal) => {
    known.add(original.id);
    others.push(original);
  };
  for (const emblem of emblems) {
    if (known.has(emblem.originalId)) continue;
    const original = await findEvenPutAside(db, emblem.originalId);
    add(original ? fileOriginal(original, false) : await bareEmblem(db, emblem));
  }
  for (const { rewritten } of project.originals) {
    if (!rewritten || known.has(rewritten.from)) continue;
    const original = await findEvenPutAside(db, rewritten.from);
    if (original) add(fileOriginal(original, false));
  }
  return others;
}

/** An emblem whose original was cleared away: its bytes are kept for it. */
async function bareEmblem(db: Queryable, { originalId, name, picture }: EmblemItem): Promise<FileOriginal> {
  return {
    id: originalId,
    name,
    fileName: name,
    sha256: picture.sha256,
    bytes: orNotFound(await blobLength(db, picture.sha256), `The picture of ${name}`),
    page: picture.page,
    words: { credit: '', copyright: '', altText: '' },
    marks: [],
    decided: [],
    trim: null,
    finishId: null,
    blend: null,
    rewritten: null,
    isChosen: false,
  };
}

async function finishesOf(
  db: Queryable,
  { finishId, originals, frames }: OpenProject,
): Promise<ProjectFile['finishes']> {
  const named = new Set([finishId, ...originals.map((one) => one.finishId), ...frames.map((one) => one.finishId)]);
  for (const { id } of shippedFinishes) named.delete(id);
  return (await listFinishes(db)).flatMap(({ id, name, description, treatment }) =>
    named.has(id) ? [{ id, name, description, treatment }] : [],
  );
}

async function fontsOf(db: Queryable, { lettering, originals }: OpenProject): Promise<ProjectFile['fonts']> {
  const named = new Set([
    ...lettering.flatMap((item) => (item.kind === 'words' ? [item.style.family] : [])),
    ...originals.flatMap(({ rewritten }) => rewritten?.family ?? []),
  ]);
  const fonts: ProjectFile['fonts'] = [];
  for (const { id, name, sha256 } of await listOwnFonts(db)) {
    const bytes = named.has(id) ? await blobLength(db, sha256) : null;
    if (bytes !== null) fonts.push({ id, name, sha256, bytes });
  }
  return fonts;
}
