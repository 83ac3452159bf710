import { execFile } from 'node:child_process';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { analyse } from '@inkwell/server/imaging/analysing/analyse.ts';
import { BoundedFolder } from '@inkwell/server/imaging/copies/boundedFolder.ts';
import { WorkingCopies } from '@inkwell/server/imaging/copies/workingCopy.ts';
import { inspect } from '@inkwell/server/imaging/intake/looking/inspect.ts';
import { makeWorkingCopy } from '@inkwell/server/imaging/intake/makeCopy.ts';
import sharp from 'sharp';
import { median } from '../inProcess.ts';
import { Program } from '../program.ts';

export interface LookFigures {
  /** Seconds of the processor, of all threads together, once the working copy is there and the weights are loaded. */
  processor: number;
  /** The same of libvips that decodes the picture whole, in the same run. */
  opening: number;
  /** The most that the worker process has held while pictures were looked at, in MB of 1,000,000 bytes. */
  megabytes: number;
  /** Milliseconds, p95, of listing the projects: at rest, and while pictures are looked at. */
  quiet: number;
  looking: number;
}

/** What it takes to look at a picture of 24 megapixels. @param folder for what is made on the way */
export async function lookFigures(picture: string, folder: string): Promise<LookFigures> {
  return { ...(await processorSeconds(picture, folder)), ...(await inProgram(picture)) };
}

async function processorSeconds(picture: string, folder: string): Promise<Pick<LookFigures, 'processor' | 'opening'>> {
  const inspected = await inspect(picture);
  const original = { ...inspected, sha256: 'ab'.repeat(32), page: 0 };
  const copies = await WorkingCopies.open(
    await BoundedFolder.open(join(folder, 'copies'), Number.MAX_SAFE_INTEGER),
    async () => {
      throw new Error('The copy is made beforehand.');
    },
    { copy: async () => undefined },
  );
  const to = copies.unfinished();
  await makeWorkingCopy(inspected, to);
  await copies.keep(original, to);
  const [looking, opening]: [number[], number[]] = [[], []];
  for (let round = 0; round < 6; round += 1) {
    looking.push(await secondsOf(() => analyse(original, copies)));
    opening.push(await secondsOf(() => sharp(picture).raw().toBuffer()));
  }
  // The first loads the weights.
  return { processor: median(looking.slice(1)), opening: median(opening.slice(1)) };
}

async function secondsOf(work: () => Promise<unknown>): Promise<number> {
  const before = process.cpuUsage();
  await work();
  const { user, system } = process.cpuUsage(before);
  return (user + system) / 1e6;
}

const pictures = 12;

async function inProgram(picture: string): Promise<Omit<LookFigures, 'processor' | 'opening'>> {
  const program = await Program.start('on');
  const listing = async (seconds: number) => {
    const script = join(import.meta.dirname, '..', 'listing.ts');
    const args = ['--import', 'tsx', script, program.client.address, `${seconds}`];
    return Number((await promisify(execFile)(process.execPath, args)).stdout);
  };
  try {
    const quiet = await listing(8);
    const originals = [];
    for (let at = 0; at < pictures; at += 1) {
      // Other bytes each time: the same are looked at once.
      const data = await sharp(picture)
        .extract({ left: at * 8, top: 0, width: 5900, height: 4000 })
        .jpeg({ quality: 88 })
        .toBuffer();
      originals.push(await program.client.original(data, `${at}.jpg`));
    }
    const { id } = await program.client.projectOf('Looked at', originals, []);
    const [looking] = await Promise.all([listing(8), program.client.looked(id)]);
    return { megabytes: program.peakWorkerMegabytes(), quiet, looking };
  } finally {
    await program.stop();
  }
}
