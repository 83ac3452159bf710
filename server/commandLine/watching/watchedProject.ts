import type { OpenProject, PlaceSet } from '@inkwell/core/model';
import type { Services } from '../../services.ts';
import { addProject, openProject } from '../../store/projects/projects.ts';
import { applyPlaceSet } from '../../tasks/book/placeSets.ts';
import { changeProjectSettings } from '../../tasks/projects/changeProject.ts';
import { worded } from '../framing/frameOptions.ts';
import type { Ledger } from './ledger.ts';

/** What the project of a watched folder is made of. */
export interface ProjectOptions {
  /** What it is called. */
  name: string;
  set: PlaceSet;
  /** What items of its lettering say, by their names. */
  words: ReadonlyMap<string, string>;
}

/** A project has at most so many pictures; then the next one is begun. */
const mostPictures = 500;

/** What a project is begun with, in a line: with other words, or another set, the next one is begun. */
const madeOf = ({ set, words }: ProjectOptions): string =>
  JSON.stringify({ set: set.id, version: set.version, words: [...words].sort() });

/** The project that the next picture comes into: the last one, as long as it is there, has room, and its set and words are as they were. */
export async function projectWithRoom(
  services: Services,
  options: ProjectOptions,
  ledger: Ledger,
): Promise<OpenProject> {
  const known = ledger.project;
  const project = known?.madeOf === madeOf(options) ? await openProject(services.db, known.project) : null;
  return project && project.originals.length < mostPictures ? project : begun(services, options, ledger);
}

async function begun(services: Services, options: ProjectOptions, ledger: Ledger): Promise<OpenProject> {
  const { name, set, words } = options;
  const id = await addProject(services.db, name);
  const { project } = await applyPlaceSet(services, set.id, id, 1);
  const lettering = worded(project.lettering, words);
  const whole = words.size > 0 ? await changeProjectSettings(services, id, project.version, { lettering }) : project;
  await ledger.begin({ project: id, madeOf: madeOf(options) });
  return whole;
}
