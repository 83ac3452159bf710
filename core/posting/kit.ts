import type { ManifestFile } from '../model/index.ts';
import { apart, folderName, isReserved } from '../naming/index.ts';

/** A delivered file as it lies in the kit. */
export interface KitFile {
  line: ManifestFile;
  /** In the archive, with slashes between folders. */
  path: string;
}

/** What is posted at once: one picture, or the panels or tiles of one post in their order. */
export interface Post {
  /** The name of its first file: no other post of the delivery has that. */
  key: string;
  files: KitFile[];
}

/** All that comes of one frame: one post, or the posts of a quilt in the order in which they go up. */
export interface KitEntry {
  /** Among those of its network, from 1. */
  number: number;
  place: string;
  original: string;
  /** How its files belong together; null for a single one. */
  group: 'panels' | 'block' | 'quilt' | null;
  posts: Post[];
}

export interface KitNetwork {
  network: string;
  entries: KitEntry[];
}

/** Whole paths have at most so many characters: a person's own folder comes on top, and old systems end at 260. */
const longestPath = 180;

/** How the files of one frame belong together. Of a delivery from before it was noted, one row is a strip. */
function groupOf({ placeThen, piece }: ManifestFile): KitEntry['group'] {
  if (!piece) return null;
  return placeThen?.spec.group?.kind ?? (piece.rows === 1 ? 'panels' : 'block');
}

/** Where a path is cut, so many characters are left free for a number. */
const numberRoom = 4;

/**
 * The path of a file. A name that Windows keeps for a device gets a word in front, and one with which the whole would be too long is
 * cut before its extension.
 */
function boundedPath(folder: string, file: string): string {
  const name = isReserved(file) ? `file-${file}` : file;
  const room = longestPath - folder.length - 1;
  if (name.length <= room) return `${folder}/${name}`;
  const dot = name.lastIndexOf('.');
  return `${folder}/${name.slice(0, room - numberRoom - (name.length - dot))}${name.slice(dot)}`;
}

/** A path with a number before its extension. */
const numbered = (path: string, number: number) => path.replace(/(\.[^.]*)$/, `-${number}$1`);

/**
 * A delivery as it is posted: network by network, frame by frame in the order in which they were delivered, the files of each in
 * posting order. Paths are safe on every file system, and no two are alike, even where case is ignored.
 */
export function postingKit(files: readonly ManifestFile[]): KitNetwork[] {
  const networks = new Map<string, Map<string, ManifestFile[]>>();
  for (const line of files) {
    const frames = networks.get(line.network) ?? new Map<string, ManifestFile[]>();
    networks.set(line.network, frames);
    const key = line.piece ? `${line.planHash} ${line.place}` : line.file;
    frames.set(key, [...(frames.get(key) ?? []), line]);
  }
  const folders = apart([...networks.keys()].map((name) => folderName(name, 'Network')));
  return [...networks].map(([network, frames], at) => ({
    network,
    entries: [...frames.values()].map((lines, index) => entryOf(lines, index + 1, folders[at] ?? 'Network')),
  }));
}

function entryOf(lines: readonly ManifestFile[], number: number, networkFolder: string): KitEntry {
  const ordered = [...lines].sort((a, b) => (a.piece?.number ?? 0) - (b.piece?.number ?? 0));
  const [first] = ordered as [ManifestFile];
  const folder = `${networkFolder}/${number} ${folderName(first.place, 'Place')}`;
  const paths = apart(
    ordered.map(({ file, piece }) => {
      const order = piece ? `${String(piece.number).padStart(Math.max(2, String(piece.of).length), '0')} ` : '';
      return boundedPath(folder, `${order}${file}`);
    }),
    numbered,
  );
  const files = ordered.map((line, at): KitFile => ({ line, path: paths[at] ?? line.file }));
  const group = groupOf(first);
  const posts = group === 'quilt' ? files.map((file) => [file]) : [files];
  return {
    number,
    place: first.place,
    original: first.original,
    group,
    posts: posts.map((each) => ({ key: each[0]?.line.file ?? '', files: each })),
  };
}

/** All files of a kit, in the order in which they are posted. */
export const kitFiles = (kit: readonly KitNetwork[]): KitFile[] =>
  kit.flatMap(({ entries }) => entries.flatMap(({ posts }) => posts.flatMap(({ files }) => files)));

/** The alternative text of a file: that of a picture in pieces says which piece it is. Empty where there is none. */
export function alternativeText({ posting, piece }: Pick<ManifestFile, 'posting' | 'piece'>): string {
  const text = posting?.altText ?? '';
  return text === '' || !piece ? text : `${text} (${piece.number} of ${piece.of})`;
}
