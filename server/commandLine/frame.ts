import { createReadStream, createWriteStream } from 'node:fs';
import { access, mkdir, writeFile } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { shippedFinishes } from '@inkwell/core/finishing';
import type { Aim, Delivery, OpenProject, Original, ProjectSettings } from '@inkwell/core/model';
import { kitFiles, postingKit } from '@inkwell/core/posting';
import { mapTwoAtATime } from '../mapTwoAtATime.ts';
import type { Services } from '../services.ts';
import { readBlob } from '../store/library/blobs.ts';
import { listFinishes } from '../store/library/finishes.ts';
import { listPlaceSets } from '../store/library/placeSets.ts';
import { findDelivery } from '../store/projects/deliveries.ts';
import { framesOfProject } from '../store/projects/frames.ts';
import { addProject, openProject } from '../store/projects/projects.ts';
import { applyPlaceSet } from '../tasks/book/placeSets.ts';
import { kitTextsOf } from '../tasks/delivering/archive.ts';
import { requestDelivery } from '../tasks/delivering/requestDelivery.ts';
import { changeProjectSettings, chooseFrames, chooseOriginals } from '../tasks/projects/changeProject.ts';
import { orNotFound, UserError } from '../userError.ts';
import { type Code, codes, Misuse } from './codes.ts';
import { Progress } from './progress.ts';

export interface FrameOptions {
  places: string[];
  set: string | null;
  /** Where the files go. */
  out: string;
  project: string;
  finish: string | null;
  aim: Aim | null;
  /** What items of the lettering say, by their names. */
  words: ReadonlyMap<string, string>;
  isJson: boolean;
}

/** A picture that was not taken in, and why. */
interface Refused {
  file: string;
  reason: string;
}

const pollMs = 300;

/**
 * Takes pictures in, frames them for places, and writes the files with all that a delivery has, as one would in the browser.
 *
 * @param files paths of the pictures
 */
export async function frame(services: Services, files: readonly string[], options: FrameOptions): Promise<Code> {
  await checkFree(options.out);
  const { set, placeIds } = await placesOf(services, options);
  const settings = await settingsOf(services, options);
  const { taken, refused } = await takeIn(services, files, options.isJson);
  if (taken.length === 0) throw new UserError(refused.map(({ file, reason }) => `${file}: ${reason}`).join('\n'));
  const id = await addProject(services.db, options.project);
  let project = await chooseOriginals(
    services,
    id,
    taken.map((one) => one.id),
    [],
  );
  if (set) ({ project } = await applyPlaceSet(services, set, id, project.version));
  if (placeIds.length > 0) {
    const pairs = taken.flatMap(({ id: originalId }) => placeIds.map((placeId) => ({ originalId, placeId })));
    project = await chooseFrames(services, id, pairs, []);
  }
  project = await changeProjectSettings(services, id, project.version, withWords(project, settings, options.words));
  const delivery = await delivered(services, project, options.isJson);
  const written = await writeKit(services, delivery, project.name, options.out);
  report({ project, delivery, written, refused, out: options.out }, options.isJson);
  return delivery.leftOut.length > 0 || refused.length > 0 ? codes.wrong : codes.right;
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

/** The set of places and the places that are meant. @throws Misuse where one is not there */
async function placesOf(
  { db, planner }: Services,
  { places, set }: Pick<FrameOptions, 'places' | 'set'>,
): Promise<{ set: string | null; placeIds: string[] }> {
  const known = (await planner.open()).places;
  for (const id of places) {
    if (known.has(id)) continue;
    const network = id.split('/')[0] ?? '';
    const near = [...known.keys()].filter((one) => one.startsWith(`${network}/`));
    throw new Misuse(
      `There is no place ${id}. ${near.length > 0 ? `${network} has ${near.join(', ')}.` : 'A place is called network/place, such as sunpane/story.'}`,
    );
  }
  if (set === null) {
    if (places.length === 0) throw new Misuse('Say where the pictures go: --places sunpane/story,… or --set NAME.');
    return { set: null, placeIds: places };
  }
  const sets = await listPlaceSets(db);
  const found = sets.find(({ name }) => name.toLowerCase() === set.toLowerCase());
  if (found) return { set: found.id, placeIds: places };
  const names = sets.map(({ name }) => `“${name}”`).join(', ');
  throw new Misuse(`There is no set “${set}”. ${names ? `There are ${names}.` : 'None has been made yet.'}`);
}

/** What is set for the project. @throws Misuse where there is no such finish */
async function settingsOf(
  { db }: Services,
  { finish, aim }: Pick<FrameOptions, 'finish' | 'aim'>,
): Promise<Partial<ProjectSettings>> {
  const finishes = [...shippedFinishes, ...(await listFinishes(db))];
  const wanted = finish === null ? null : finishes.find(({ name }) => name.toLowerCase() === finish.toLowerCase());
  if (wanted === undefined) {
    throw new Misuse(`There is no finish “${finish}”. There are ${finishes.map(({ name }) => name).join(', ')}.`);
  }
  return { ...(wanted ? { finishId: wanted.id } : {}), ...(aim ? { usualAim: aim } : {}) };
}

/** The settings with what items of the lettering are to say. @throws Misuse where there is no such item */
function withWords(
  { lettering }: OpenProject,
  settings: Partial<ProjectSettings>,
  words: ReadonlyMap<string, string>,
): Partial<ProjectSettings> {
  for (const name of words.keys()) {
    if (lettering.some((item) => item.kind === 'words' && item.name.toLowerCase() === name.toLowerCase())) continue;
    const names = lettering.flatMap((item) => (item.kind === 'words' ? [item.name] : []));
    throw new Misuse(
      `Nothing called ${name} is laid over these pictures. ${names.length > 0 ? `There are ${names.join(', ')}.` : 'Words come with a set of places.'}`,
    );
  }
  const said = lettering.map((item) => {
    const text = item.kind === 'words' ? words.get(item.name.toLowerCase()) : undefined;
    return text === undefined || item.kind !== 'words' ? item : { ...item, text, short: '' };
  });
  return words.size > 0 ? { ...settings, lettering: said } : settings;
}

/** Takes pictures in, two at a time; those that cannot be are said with the reason. */
async function takeIn(
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
      refused.push({ file, reason: error.message });
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

function report(
  outcome: { project: OpenProject; delivery: Delivery; written: string[]; refused: Refused[]; out: string },
  isJson: boolean,
): void {
  const { project, delivery, written, refused, out } = outcome;
  const { leftOut } = delivery;
  if (isJson) {
    const { id, name } = project;
    console.log(
      JSON.stringify({ project: { id, name }, delivery: delivery.id, out, files: written, leftOut, refused }, null, 2),
    );
    return;
  }
  for (const { file, reason } of refused) console.log(`Not taken  ${file}: ${reason}`);
  for (const { file, reasons } of leftOut) console.log(`Left out  ${file}: ${reasons.join(' ')}`);
  const count = written.length === 1 ? '1 file' : `${written.length} files`;
  const others = leftOut.length + refused.length;
  console.log(`${project.name}: ${count} in ${out}${others > 0 ? `; ${others} left out, as said above` : ''}.`);
}
