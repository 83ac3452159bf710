import { shippedFinishes } from '@inkwell/core/finishing';
import {
  type Aim,
  type Lettering,
  LetteringSchema,
  type Place,
  type PlaceSet,
  type ProjectSettings,
} from '@inkwell/core/model';
import { gridOfCount, gridProblem } from '@inkwell/core/splitting';
import type { Services } from '../../services.ts';
import { listFinishes } from '../../store/library/finishes.ts';
import { listPlaceSets } from '../../store/library/placeSets.ts';
import { Misuse } from '../codes.ts';
import { knownPlace } from '../places.ts';

export interface FrameOptions {
  places: string[];
  set: string | null;
  /** Where the files go. */
  out: string;
  /** What the project is called. */
  project: string;
  finish: string | null;
  aim: Aim | null;
  /** What items of the lettering say, by their names. */
  words: ReadonlyMap<string, string>;
  /** Where each place has to take several pieces: into how many panels, or rows of tiles; null where that follows from the picture. */
  pieces: { panels: number | null } | null;
  /** The table that says for each picture what is written on it; null for none. */
  series: string | null;
  isJson: boolean;
}

/** The set of places and the places that are meant. @throws Misuse where one is not there */
export async function placesOf(
  { db, planner }: Services,
  { places, set, pieces }: Pick<FrameOptions, 'places' | 'set' | 'pieces'>,
): Promise<{ set: PlaceSet | null; placeIds: string[] }> {
  const known = (await planner.open()).places;
  for (const id of places) {
    const { place } = knownPlace(known, id);
    const problem = pieces && piecesProblem(place, pieces.panels);
    if (problem) throw new Misuse(problem);
  }
  if (set === null) {
    if (places.length === 0) throw new Misuse('Say where the pictures go: --places sunpane/story,… or --set NAME.');
    return { set: null, placeIds: places };
  }
  const sets = await listPlaceSets(db);
  const found = sets.find(({ name }) => name.toLowerCase() === set.toLowerCase());
  if (found) return { set: found, placeIds: places };
  const names = sets.map(({ name }) => `“${name}”`).join(', ');
  throw new Misuse(`There is no set “${set}”. ${names ? `There are ${names}.` : 'None has been made yet.'}`);
}

/** What is set for the project. @throws Misuse where there is no such finish */
export async function settingsOf(
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

/** Why a place cannot be cut into so many panels, or rows of tiles; null where it can. */
function piecesProblem(place: Place, panels: number | null): string | null {
  if (!place.group) return `${place.name} takes one picture. Name a place that takes several pieces.`;
  return panels === null ? null : gridProblem(place, { grid: gridOfCount(place, panels), closing: null });
}

/**
 * The lettering with what its items are to say.
 *
 * @throws Misuse where there is no such item, or where its words are empty or too long
 */
export function worded(lettering: Lettering, words: ReadonlyMap<string, string>): Lettering {
  const names = lettering.flatMap((item) => (item.kind === 'words' ? [item.name] : []));
  for (const name of words.keys()) {
    if (names.some((one) => one.toLowerCase() === name)) continue;
    const hint = names.length > 0 ? `There are ${names.join(', ')}.` : 'Words come with a set of places.';
    throw new Misuse(`Nothing called ${name} is laid over these pictures. ${hint}`);
  }
  const said = lettering.map((item) => {
    const text = item.kind === 'words' ? words.get(item.name.toLowerCase()) : undefined;
    return text === undefined || item.kind !== 'words' ? item : { ...item, text, short: '' };
  });
  const read = LetteringSchema.safeParse(said);
  if (read.success) return read.data;
  throw new Misuse(read.error.issues[0]?.message ?? 'These words cannot be laid over pictures.');
}
