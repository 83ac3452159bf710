import { otherDimensionsWords } from '../bookkeeping/index.ts';
import { dimensionsProblem } from '../geometry/index.ts';
import {
  formatLabel,
  formatLimit,
  formatWeight,
  type ImageFormat,
  limitFor,
  type Manifest,
  type ManifestFile,
  type MeasuredFile,
  type Place,
  type PlaceOfNetwork,
  sidesWords,
} from '../model/index.ts';

/** A file as it was found in an archive; `opened` is null where it cannot be decoded. */
export interface FoundFile {
  path: string;
  sha256: string;
  opened: MeasuredFile | null;
}

/** What an archive holds beside its pictures. */
export const kitTexts: readonly string[] = ['manifest.json', 'posting.csv', 'posting.html'];

/** Something that is wrong with an archive, or worth knowing. */
export interface Observation {
  path: string;
  isWrong: boolean;
  text: string;
}

/**
 * Holds an archive against what its manifest says, against the places as they were when it was delivered, and against those that
 * are in the spec book now: what only those do not take any more is told, and is nobody's fault.
 */
export function verified(
  manifest: Manifest,
  found: readonly FoundFile[],
  now: ReadonlyMap<string, PlaceOfNetwork>,
): Observation[] {
  const byPath = new Map(found.map((file) => [file.path, file]));
  const listed = new Set(manifest.files.map(({ file }) => file));
  const wrong = (path: string, text: string): Observation => ({ path, isWrong: true, text });
  const observations = manifest.files.flatMap((line): Observation[] => {
    const file = byPath.get(line.file);
    if (!file) return [wrong(line.file, 'The manifest lists it, and it is not in the archive.')];
    if (file.sha256 !== line.sha256)
      return [wrong(line.file, 'It is not the file that was delivered: its SHA-256 is another.')];
    if (!file.opened) return [wrong(line.file, 'It cannot be opened.')];
    const { opened } = file;
    return [
      ...manifestReasons(opened, line).map((text) => wrong(line.file, text)),
      ...placeReasons(opened, line.placeThen?.spec, line.uploadWidth).map((text) => wrong(line.file, text)),
      ...newerReasons(opened, line, now),
    ];
  });
  const stray = found.filter(({ path }) => !listed.has(path) && !kitTexts.includes(path));
  return [...observations, ...stray.map(({ path }) => wrong(path, 'The manifest does not list it.'))];
}

function manifestReasons(opened: MeasuredFile, line: ManifestFile): string[] {
  const reasons: string[] = [];
  if (opened.width !== line.width || opened.height !== line.height) {
    reasons.push(`It is ${sidesWords(opened)}; the manifest says ${sidesWords(line)}.`);
  }
  if (opened.format !== line.format)
    reasons.push(`It is ${opened.format}; the manifest says ${formatLabel[line.format]}.`);
  if (opened.bytes !== line.bytes) {
    reasons.push(`It weighs ${opened.bytes} bytes; the manifest says ${line.bytes} bytes.`);
  }
  return reasons;
}

/**
 * Why a place does not take a file; nothing is said where the place is not known.
 *
 * @param uploadWidth pixels across where the file was made in other dimensions than the place's, on purpose
 */
export function placeReasons(opened: MeasuredFile, place: Place | undefined, uploadWidth?: number): string[] {
  if (!place) return [];
  const reasons: string[] = [];
  const { formats, name } = place;
  const limit = limitFor(place, opened.format as ImageFormat);
  if (uploadWidth === undefined || uploadWidth === place.width) {
    const isTaken = dimensionsProblem(place, opened) === null;
    if (!isTaken) reasons.push(`It is ${sidesWords(opened)}; ${name} wants ${dimensionsTakenWords(place)}.`);
  } else {
    const { width, least, most } = dimensionsTaken(place, uploadWidth);
    if (opened.width !== width || opened.height < least || opened.height > most) {
      const wanted = least === most ? sidesWords({ width, height: least }) : `${width} × ${least} to ${most} px`;
      reasons.push(`It is ${sidesWords(opened)}; ${name} wants ${wanted}.`);
    }
  }
  if (!formats.includes(opened.format as ImageFormat)) {
    reasons.push(`It is ${opened.format}; ${name} takes ${formats.map((one) => formatLabel[one]).join(', ')}.`);
  }
  if (opened.bytes > limit.bytes) {
    reasons.push(`It weighs ${formatWeight(opened.bytes, limit.unit)}; ${name} takes ${formatLimit(limit)}.`);
  }
  return reasons;
}

/** What a place takes, in words. */
function dimensionsTakenWords(place: Place): string {
  const { width, height } = place;
  const own =
    typeof height === 'number' ? sidesWords({ width, height }) : `${width} × ${height.min} to ${height.max} px`;
  const others = otherDimensionsWords(place);
  return others === '' ? own : `${own}; ${others}`;
}

/** The width and the heights that a file may have where it was made in other dimensions, in the ratio of its place. */
function dimensionsTaken({ width, height }: Place, uploadWidth: number) {
  const [least, most] = typeof height === 'number' ? [height, height] : [height.min, height.max];
  const scaled = (side: number) => Math.round((side * uploadWidth) / width);
  return { width: uploadWidth, least: scaled(least), most: scaled(most) };
}

/** What the spec book of today says otherwise than that of the delivery. */
function newerReasons(
  opened: MeasuredFile,
  { file, placeThen, uploadWidth }: ManifestFile,
  now: ReadonlyMap<string, PlaceOfNetwork>,
): Observation[] {
  if (!placeThen)
    return [
      { path: file, isWrong: false, text: 'It is from before places were noted: only the manifest was looked at.' },
    ];
  const place = now.get(placeThen.id)?.place;
  return placeReasons(opened, place, uploadWidth).map((text) => ({
    path: file,
    isWrong: false,
    text: `By the sheet of ${placeThen.sheet.checkedOn} it is right. By the spec book of today: ${text}`,
  }));
}
