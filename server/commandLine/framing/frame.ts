import { access } from 'node:fs/promises';
import { join } from 'node:path';
import { type Aim, NameSchema, type OpenProject, type PlaceSet, type ProjectSettings } from '@inkwell/core/model';
import type { ReadRow } from '@inkwell/core/series';
import { gridOfCount } from '@inkwell/core/splitting';
import type { Services } from '../../services.ts';
import { addProject } from '../../store/projects/projects.ts';
import { applyPlaceSet } from '../../tasks/book/placeSets.ts';
import { changeFramesOf } from '../../tasks/projects/changeFrame.ts';
import { changeProjectSettings, chooseFrames, chooseOriginals } from '../../tasks/projects/changeProject.ts';
import { UserError } from '../../userError.ts';
import { type Code, codes, Misuse } from '../codes.ts';
import { type Context, shown } from '../context.ts';
import { delivered, writeKit } from './delivering.ts';
import { type FrameOptions, placesOf, settingsOf, worded } from './frameOptions.ts';
import { report } from './report.ts';
import { type DoubtfulRow, filesNamed, seriesRows, withSeries } from './series.ts';
import { looked, takeIn } from './takingIn.ts';

/** What is done once all that was asked for is known to be there. */
export interface FrameTask {
  name: string;
  set: PlaceSet | null;
  placeIds: string[];
  settings: Partial<ProjectSettings>;
  /** The pictures, by their paths. */
  files: readonly string[];
  /** What a table says of them; null where there is none. */
  rows: ReadRow[] | null;
}

/** Looks at what is asked for before anything is done. @throws Misuse where it cannot be done */
export async function frameTask(
  services: Services,
  files: readonly string[],
  options: FrameOptions,
): Promise<FrameTask> {
  await checkFree(options.out);
  const { set, placeIds } = await placesOf(services, options);
  const lettering = worded(set?.lettering ?? [], options.words);
  const { places } = await services.planner.open();
  const rows = options.series === null ? null : await seriesRows(options.series, files, lettering, places);
  const name = NameSchema.safeParse(options.project);
  if (!name.success) throw new Misuse(name.error.issues[0]?.message ?? 'A project cannot be called that.');
  // Of a series only the pictures that it names are framed.
  const named = rows ? filesNamed(rows) : files;
  return { name: name.data, set, placeIds, settings: await settingsOf(services, options), files: named, rows };
}

/**
 * Takes pictures in, frames them for places, and writes the files with all that a delivery has, as one would in the browser: each picture is
 * looked at before it is framed.
 */
export async function frame(
  context: Context,
  services: Services,
  { name, set, placeIds, settings, files, rows }: FrameTask,
  { words, aim, pieces, out, isJson }: FrameOptions,
): Promise<Code> {
  const { takenAs, refused } = await takeIn(context, services, files, isJson);
  if (takenAs.size === 0) throw new UserError(refused.map(({ file, reason }) => `${file}: ${reason}`).join('\n'));
  const originals = [...takenAs.values()];
  await looked(services, originals, isJson);
  const id = await addProject(services.db, name);
  const ids = originals.map((one) => one.id);
  // A series gives each of its pictures what its row says.
  let project = await chooseOriginals(services, id, rows ? [] : ids, []);
  let missing: string[] = [];
  if (set) ({ project, missing } = await applyPlaceSet(services, set.id, id, project.version));
  const lettering = words.size > 0 ? { lettering: worded(project.lettering, words) } : {};
  // What is set for the project holds for the frames that come after it.
  project = await changeProjectSettings(services, id, project.version, { ...settings, ...lettering });
  let doubtful: DoubtfulRow[] = [];
  if (rows) {
    const usual = [...new Set([...project.usualPlaces, ...placeIds])];
    ({ project, doubtful } = await withSeries(services, project, rows, usual, takenAs));
  } else if (placeIds.length > 0) {
    const pairs = ids.flatMap((originalId) => placeIds.map((placeId) => ({ originalId, placeId })));
    project = await chooseFrames(services, id, pairs, []);
  }
  if (set && aim) await aimAll(services, project, aim);
  if (pieces?.panels) await cutInto(services, project, pieces.panels);
  const delivery = await delivered(services, project, null, isJson);
  const written = await writeKit(services, delivery, project.name, out);
  const outcome = { project, delivery, written, refused, missing, doubtful, out: shown(context, out) };
  report(outcome, isJson, context.say);
  return delivery.leftOut.length + refused.length + missing.length + doubtful.length > 0 ? codes.wrong : codes.right;
}

/** Nothing that is there already is written over. @throws Misuse where the folder holds a delivery */
async function checkFree(out: string): Promise<void> {
  const isThere = await access(join(out, 'manifest.json')).then(
    () => true,
    () => false,
  );
  if (isThere)
    throw new Misuse(`${out} holds a delivery already, and none is ever replaced. Name another folder with --out.`);
}

/** Spends the bytes of all frames on one thing, whatever their set has said. */
async function aimAll(services: Services, project: OpenProject, aim: Aim): Promise<void> {
  const asked = project.frames.map(({ id, version, weighing }) => ({
    id,
    version,
    change: { weighing: { ...weighing, aim } },
  }));
  await changeFramesOf(services, project.id, asked);
}

/** Cuts all frames into so many panels, or rows of tiles. @throws Misuse where their place does not take so many */
async function cutInto(services: Services, project: OpenProject, panels: number): Promise<void> {
  const { places } = (await services.planner.open()).bookFor(project);
  const asked = project.frames.flatMap(({ id, version, placeId }) => {
    const place = places.get(placeId)?.place;
    return place ? [{ id, version, change: { grid: gridOfCount(place, panels) } }] : [];
  });
  for (const changed of await changeFramesOf(services, project.id, asked)) {
    if (changed.is === 'refused') throw new Misuse(changed.reason);
  }
}
