import { createReadStream, createWriteStream } from 'node:fs';
import { access, mkdir, writeFile } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import {
  type Aim,
  type Delivery,
  NameSchema,
  type OpenProject,
  type Original,
  type PlaceSet,
  type ProjectSettings,
} from '@inkwell/core/model';
import { kitFiles, postingKit } from '@inkwell/core/posting';
import { mapTwoAtATime } from '../mapTwoAtATime.ts';
import type { Services } from '../services.ts';
import { readBlob } from '../store/library/blobs.ts';
import { findDelivery } from '../store/projects/deliveries.ts';
import { framesOfProject } from '../store/projects/frames.ts';
import { addProject, openProject } from '../store/projects/projects.ts';
import { applyPlaceSet } from '../tasks/book/placeSets.ts';
import { kitTextsOf } from '../tasks/delivering/archive.ts';
import { requestDelivery } from '../tasks/delivering/requestDelivery.ts';
import { changeFramesOf } from '../tasks/projects/changeFrame.ts';
import { changeProjectSettings, chooseFrames, chooseOriginals } from '../tasks/projects/changeProject.ts';
import { orNotFound, UserError } from '../userError.ts';
import { type Code, codes, Misuse } from './codes.ts';
import { type Context, shown } from './context.ts';
import { type FrameOptions, placesOf, settingsOf, worded } from './frameOptions.ts';
import { Progress } from './progress.ts';

/** A picture that was not taken in, and why. */
interface Refused {
  file: string;
  reason: string;
}

const pollMs = 300;

/** What is done once all that was asked for is known to be there. */
export interface FrameTask {
  name: string;
  set: PlaceSet | null;
  placeIds: string[];
  settings: Partial<ProjectSettings>;
}

/** Looks at what is asked for before anything is done. @throws Misuse where it cannot be done */
export async function frameTask(services: Services, options: FrameOptions): Promise<FrameTask> {
  await checkFree(options.out);
  const { set, placeIds } = await placesOf(services, options);
  worded(set?.lettering ?? [], options.words);
  const name = NameSchema.safeParse(options.project);
  if (!name.success) throw new Misuse(name.error.issues[0]?.message ?? 'A project cannot be called that.');
  return { name: name.data, set, placeIds, settings: await settingsOf(services, options) };
}

/**
 * Takes pictures in, frames them for places, and writes the files with all that a delivery has, as one would in the browser.
 *
 * @param files paths of the pictures
 */
export async function frame(
  context: Context,
  services: Services,
  files: readonly string[],
  { name, set, placeIds, settings }: FrameTask,
  { words, aim, pieces, out, isJson }: FrameOptions,
): Promise<Code> {
  const { taken, refused } = await takeIn(context, services, files, isJson);
  if (taken.length === 0) throw new UserError(refused.map(({ file, reason }) => `${file}: ${reason}`).join('\n'));
  const id = await addProject(services.db, name);
  const ids = taken.map((one) => one.id);
  let project = await chooseOriginals(services, id, ids, []);
  let missing: string[] = [];
  if (set) ({ project, missing } = await applyPlaceSet(services, set.id, id, project.version));
  const lettering = words.size > 0 ? { lettering: worded(project.lettering, words) } : {};
  project = await changeProjectSettings(services, id, project.version, { ...settings, ...lettering });
  const pairs = ids.flatMap((originalId) => placeIds.map((placeId) => ({ originalId, placeId })));
  if (pairs.length > 0) project = await chooseFrames(services, id, pairs, []);
  if (set && aim) await aimAll(services, project, aim);
  if (pieces?.panels) await cutInto(services, project, pieces.panels);
  const delivery = await delivered(services, project, isJson);
  const written = await writeKit(services, delivery, project.name, out);
  report({ project, delivery, written, refused, missing, out: shown(context, out) }, isJson, context.say);
  return delivery.leftOut.length + refused.length + missing.length > 0 ? codes.wrong : codes.right;
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
  const asked = project.frames.map(({ id, version, placeId }) => {
    const group = places.get(placeId)?.place.group;
    const grid = group?.kind === 'quilt' ? { columns: group.columns, rows: panels } : { columns: panels, rows: 1 };
    return { id, version, change: { grid } };
  });
  for (const changed of await changeFramesOf(services, project.id, asked)) {
    if (changed.is === 'refused') throw new Misuse(changed.reason);
  }
}

/** Takes pictures in, two at a time; those that cannot be are said with the reason. */
async function takeIn(
  context: Context,
  { importing }: Services,
  files: readonly string[],
  isQuiet: boolean,
): Promise<{ taken: Original[]; refused: Refused[] }> {
  const taken = new Map<number, Original>();
  const refused: Refused[] = [];
  const progress = new Progress('Taking in', files.length, isQuiet);
  await mapTwoAtATime(files, async (file, index) => {
    try {
      taken.set(index, await importing.take(createReadStream(file), basename(file)));
    } catch (error) {
      if (!(error instanceof UserError)) throw error;
      refused.push({ file: shown(context, file), reason: error.message });
    }
    progress.at(taken.size + refused.length);
  });
  progress.end();
  return { taken: files.flatMap((_, index) => taken.get(index) ?? []), refused };
}

/** Delivers all frames of a project as they are set, and waits until that is over. */
async function delivered(services: Services, project: OpenProject, isQuiet: boolean): Promise<Delivery> {
  const { db, planner } = services;
  const planning = await planner.open();
  const frames = await framesOfProject(db, project.id);
  const seen = frames.flatMap((framed) => {
    const plan = planning.measuringOf(framed)?.planned.planHash;
    return plan ? [{ frameId: framed.frame.id, plan }] : [];
  });
  const { pattern } = orNotFound(await openProject(db, project.id), 'The project');
  const asked = await requestDelivery(services, { projectId: project.id, pattern, seen });
  const progress = new Progress('Delivering', asked.frameCount, isQuiet);
  for (;;) {
    const { delivery } = orNotFound(await findDelivery(db, asked.id), 'The delivery');
    progress.at(delivery.doneCount);
    if (delivery.state !== 'waiting' && delivery.state !== 'working') {
      progress.end();
      if (delivery.state === 'done') return delivery;
      throw new UserError(delivery.failure ?? 'The delivery was ended before it was finished.');
    }
    await new Promise((resolve) => setTimeout(resolve, pollMs));
  }
}

/** Writes what the archive of a delivery holds into a folder. @returns the paths of the files within it */
async function writeKit({ db }: Services, delivery: Delivery, projectName: string, out: string): Promise<string[]> {
  const kit = postingKit(delivery.files);
  const files = kitFiles(kit);
  for (const { line, path } of files) {
    const to = join(out, path);
    await mkdir(dirname(to), { recursive: true });
    await pipeline(readBlob(db, line.sha256), createWriteStream(to, { flags: 'wx' }));
  }
  await mkdir(out, { recursive: true });
  for (const [name, text] of kitTextsOf({ projectName }, delivery, kit)) await writeFile(join(out, name), text);
  return files.map(({ path }) => path);
}

interface Outcome {
  project: OpenProject;
  delivery: Delivery;
  written: string[];
  refused: Refused[];
  /** Places of the set that are not in the spec book. */
  missing: string[];
  out: string;
}

function report(outcome: Outcome, isJson: boolean, say: (line: string) => void): void {
  const { project, delivery, written, refused, missing, out } = outcome;
  const { leftOut } = delivery;
  if (isJson) {
    const { id, name } = project;
    const said = { project: { id, name }, delivery: delivery.id, out, files: written, leftOut, refused, missing };
    say(JSON.stringify(said, null, 2));
    return;
  }
  for (const { file, reason } of refused) say(`Not taken  ${file}: ${reason}`);
  for (const id of missing) say(`Left out  ${id}: the set names it, and it is not in the spec book any more.`);
  for (const { file, reasons } of leftOut) say(`Left out  ${file}: ${reasons.join(' ')}`);
  const count = written.length === 1 ? '1 file' : `${written.length} files`;
  const others = leftOut.length + refused.length + missing.length;
  say(`${project.name}: ${count} in ${out}${others > 0 ? `; ${others} left out, as said above` : ''}.`);
}
