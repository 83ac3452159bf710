import { parse } from 'node:path';
import type { Readable } from 'node:stream';
import { NameSchema } from '@inkwell/core/model';
import { storable } from '../../database/storable.ts';
import { readFont } from '../../fonts/readFont.ts';
import type { Services } from '../../services.ts';
import { keepBytes } from '../../store/blobs/blobs.ts';
import { countOwnFonts, keepOwnFont, projectsInFamily } from '../../store/library/ownFonts.ts';
import { framesOfProject } from '../../store/projects/frames.ts';
import { UserError } from '../../userError.ts';
import { saveAndMeasure } from '../plans/saveAndMeasure.ts';

/** What a file may weigh as it comes, in bytes, and how many fonts there may be. */
const most = { bytes: 20_000_000, fonts: 60 } as const;

async function received(source: Readable): Promise<Buffer> {
  const parts: Buffer[] = [];
  let bytes = 0;
  for await (const part of source as AsyncIterable<Buffer>) {
    bytes += part.length;
    if (bytes > most.bytes) {
      throw new UserError(`This font weighs more than ${most.bytes / 1e6} MB, the most that is taken.`, 413);
    }
    parts.push(part);
  }
  return Buffer.concat(parts);
}

/**
 * Takes in a font of a person's own, so that words can be set in it at once. What projects have asked for it already is measured anew.
 *
 * @returns the family's id: it says what the file is, so that a style that was passed on finds the same font elsewhere
 * @throws UserError where it is no font that can be used
 */
export async function addFont(
  services: Pick<Services, 'db' | 'planner'>,
  source: Readable,
  fileName: string,
): Promise<string> {
  const { data, name, weight, width } = await readFont(await received(source));
  const named = NameSchema.safeParse(storable(name ?? parse(fileName).name).slice(0, 120)).data ?? 'A font';
  return saveAndMeasure(
    services,
    async (tx) => {
      if ((await countOwnFonts(tx)) >= most.fonts) {
        throw new UserError(
          `There are ${most.fonts} fonts of your own, the most that are kept. Put one aside first.`,
          422,
        );
      }
      const sha256 = await keepBytes(tx, Buffer.from(data));
      const id = `own-${sha256.slice(0, 24)}`;
      await keepOwnFont(tx, { id, name: named, sha256, weight, width });
      return id;
    },
    async (tx, id) => {
      const ids = await projectsInFamily(tx, id);
      const frames = await Promise.all(ids.map((projectId) => framesOfProject(tx, projectId)));
      return frames.flat();
    },
  );
}
