import { setImmediate } from 'node:timers/promises';
import { wordFindings } from '@inkwell/core/checking';
import {
  type Frame,
  longestName,
  type OpenProject,
  type Original,
  type RowFindings,
  type Series,
  type SeriesRow,
} from '@inkwell/core/model';
import { type LaidRow, type RowPicture, rowPictures, withRows } from '@inkwell/core/series';
import type { Services } from '../../services.ts';
import type { Queryable } from '../../store/database.ts';
import { analysesOf } from '../../store/library/analyses.ts';
import { duplicateOriginal, findOriginals, renameOriginal } from '../../store/library/originals.ts';
import { changeFrames, framesOfProject } from '../../store/projects/frames.ts';
import { changeOriginals, openProject, saveProjectSettings } from '../../store/projects/projects.ts';
import { notFound, orNotFound, UserError } from '../../userError.ts';
import { checkVersion, saveAndMeasure } from '../plans/saveAndMeasure.ts';
import { type NewFrameOf, newFrames } from './newFrames.ts';

type Stores = Pick<Services, 'db' | 'planner'>;

const what = 'This project';

/** What a series is about: the project as it is, and the pictures that its rows name. */
interface Ground {
  project: OpenProject;
  /** Those of the project, in its order, and then the others. */
  originals: Original[];
}

/** @throws UserError where the project or one of the pictures is not there */
async function groundOf(db: Queryable, id: string, rows: readonly SeriesRow[]): Promise<Ground> {
  const project = orNotFound(await openProject(db, id), what);
  const own = new Set(project.originals.map((one) => one.id));
  const others = [...new Set(rows.map(({ originalId }) => originalId))].filter((one) => !own.has(one));
  const found = await findOriginals(db, others);
  if (found.length < others.length) throw notFound('One of these originals');
  return { project, originals: [...project.originals, ...found] };
}

/** The places that a row gets. */
const placesOf = ({ placeIds }: SeriesRow, series: Series): string[] => placeIds ?? series.placeIds;

/** What would be wrong with each row, in words. Nothing is made. @throws UserError where the project or one of the pictures is not there */
export async function tryRows(services: Stores, id: string, series: Series): Promise<RowFindings[]> {
  const ground = await groundOf(services.db, id, series.rows);
  const findingsOf = await findingsIn(services, ground, series);
  const pictures = rowPictures(series.rows, ground.originals);
  const found: RowFindings[] = [];
  for (const [at, row] of series.rows.entries()) {
    found.push({ findings: findingsOf(row, pictures[at] ?? { copyOf: row.originalId }) });
    // Others are answered meanwhile: hundreds of frames are laid out here.
    await setImmediate();
  }
  return found;
}

/** Says of a row what would be wrong with it: its words are laid over all frames that its picture has and gets. */
async function findingsIn(
  services: Stores,
  { project, originals }: Ground,
  series: Series,
): Promise<(row: SeriesRow, picture: RowPicture) => string[]> {
  const planning = await services.planner.open();
  const { places } = planning.bookFor(project);
  const analysisOf = await analysesOf(services.db, originals);
  const newFrame = await newFrames(services, null, project, originals);
  const originalOf = new Map(originals.map((one) => [one.id, one]));
  const nameOf = (placeId: string) => {
    const at = places.get(placeId);
    return at ? `${at.network.name} ${at.place.name}` : placeId;
  };
  return (row, picture) => {
    const copyOf = 'copyOf' in picture ? picture.copyOf : null;
    const original = originalOf.get('copyOf' in picture ? picture.copyOf : picture.originalId);
    if (!original) return [];
    const lettering = withRows(project.lettering, [{ originalId: original.id, copyOf, words: row.words }]);
    const there = copyOf === null ? project.frames.filter(({ originalId }) => originalId === original.id) : [];
    const frameAt = (placeId: string): Frame =>
      there.find((frame) => frame.placeId === placeId) ?? {
        // No frame is made: it is only laid out.
        id: original.id,
        version: 1,
        ...newFrame(original, placeId, {}),
      };
    const placeIds = new Set([...placesOf(row, series), ...there.map(({ placeId }) => placeId)]);
    if (placeIds.size === 0) return ['It gets no places. Choose places for the series, or name some in its row.'];
    const seen = analysisOf(original);
    const problems = [...placeIds].flatMap((placeId) => {
      try {
        const frame = frameAt(placeId);
        const lettered = planning.letteredOf({ frame, original, project: { ...project, lettering }, seen });
        return wordFindings({ lettered, settings: frame }).map(({ text }) => ({ problem: text, at: nameOf(placeId) }));
      } catch (error) {
        if (error instanceof UserError) return [{ problem: error.message, at: nameOf(placeId) }];
        throw error;
      }
    });
    const kinds = [...new Set(problems.map(({ problem }) => problem))];
    return kinds.map((kind) => {
      const spots = problems.flatMap(({ problem, at }) => (problem === kind ? [at] : []));
      return `${spots.join(', ')}: ${kind}`;
    });
  };
}

/**
 * Takes a series into a project: each row gets its picture, its name, its words and its places. All of it or nothing.
 *
 * @throws UserError where something is not there, or with the project as it is now where that was changed elsewhere
 */
export async function takeRows(services: Stores, id: string, version: number, series: Series): Promise<OpenProject> {
  const { project, originals } = await groundOf(services.db, id, series.rows);
  const newFrame = await newFrames(services, null, project, originals);
  await saveAndMeasure(
    services,
    async (tx) => {
      const ground = await groundOf(tx, id, series.rows);
      checkVersion(ground.project, version, 'These project settings were changed in another window.');
      const laid = await layRows(tx, ground, series.rows);
      const lettering = withRows(ground.project.lettering, laid);
      orNotFound(await saveProjectSettings(tx, id, version, { lettering }), what);
      await changeOriginals(
        tx,
        id,
        laid.map(({ originalId }) => originalId),
        [],
      );
      await changeFrames(tx, id, framesFor(series, laid, newFrame), []);
    },
    (tx) => framesOfProject(tx, id),
  );
  return orNotFound(await openProject(services.db, id), what);
}

/** A row with the picture that it is about, which is there. */
interface RowWithPicture extends LaidRow {
  original: Original;
}

/** Makes the copies that rows need, and calls pictures as their rows say. */
async function layRows(tx: Queryable, { originals }: Ground, rows: readonly SeriesRow[]): Promise<RowWithPicture[]> {
  const names = new Set(originals.map(({ name }) => name));
  const pictures = rowPictures(rows, originals);
  const laid: RowWithPicture[] = [];
  for (const [at, { originalId, name, words }] of rows.entries()) {
    const picture = pictures[at] ?? { copyOf: originalId };
    const wanted = 'copyOf' in picture ? picture.copyOf : picture.originalId;
    const there = orNotFound(
      originals.find((one) => one.id === wanted),
      'One of these originals',
    );
    const copy = 'copyOf' in picture ? await duplicateOriginal(tx, wanted, name ?? numbered(there.name, names)) : null;
    const original = copy ?? there;
    if (!copy && name !== null && name !== there.name) await renameOriginal(tx, there.id, name);
    laid.push({ originalId: original.id, copyOf: copy ? there.id : null, words, original });
  }
  return laid;
}

/** A name with the first number from 2 on that makes it one of its own. */
function numbered(name: string, names: Set<string>): string {
  for (let number = 2; ; number += 1) {
    const ending = ` ${number}`;
    const wanted = `${name.slice(0, longestName - ending.length)}${ending}`;
    if (names.has(wanted)) continue;
    names.add(wanted);
    return wanted;
  }
}

const framesFor = (series: Series, laid: readonly RowWithPicture[], newFrame: NewFrameOf) =>
  series.rows.flatMap((row, at) => {
    const original = laid[at]?.original;
    return original ? placesOf(row, series).map((placeId) => newFrame(original, placeId, {})) : [];
  });
