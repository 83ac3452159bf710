import { resolve } from 'node:path';
import { type Aim, formatLabel, formatLimit, formatWeight, type ImageFormat, type Limit } from '@inkwell/core/model';
import { Command } from 'commander';
import { type Code, codes } from '../codes.ts';
import { type Context, type Run, shown, withDecoding } from '../context.ts';
import { fileProblem } from '../failures.ts';
import { aimNamed, formatsNamed, limitNamed } from '../options.ts';
import { pictureFiles } from '../pictureFiles.ts';
import { freePath, writeNew } from '../writeNew.ts';

interface Options {
  limit: Limit;
  format?: ImageFormat[];
  aim?: Aim;
  out: string;
}

/** `weigh FILES… --limit WEIGHT` */
export const weighCommand = (context: Context, run: Run): Command =>
  new Command('weigh')
    .description('Brings pictures under a limit at the highest quality that fits, in the dimensions that they have.')
    .argument('<pictures...>', 'files, folders with pictures, and patterns in quotes')
    .requiredOption('--limit <weight>', 'what a file may weigh: "500 kB", 8MB, 1.5MiB', limitNamed)
    .option('--format <names>', 'jpeg, png, webp, avif; of several the most like the picture is kept', formatsNamed)
    .option('--aim <aim>', 'what the bytes are spent on: fits, flick, look or glance', aimNamed)
    .option('--out <folder>', 'where the files go', '.')
    .addHelpText(
      'after',
      `
Without --format a file keeps its own, where that is one of the four; or else it becomes a JPEG.
It ends with 0 where all fit, 2 where one does not, and 1 where it was called wrongly.

Examples:
  ./inkwell weigh kites.jpg --limit "200 kB" --out light
  ./inkwell weigh photos --limit 1MB --format jpeg,webp --out light`,
    )
    .action((pictures: string[], options: Options) => run(() => weigh(context, pictures, options)));

async function weigh(context: Context, pictures: string[], { limit, format, aim, out }: Options): Promise<Code> {
  const { caller, say } = context;
  const files = await pictureFiles(pictures, caller);
  const { weighFile } = await import('../../tasks/plans/weighFile.ts');
  return withDecoding(async (decoding) => {
    let isAllRight = true;
    for (const file of files) {
      const weighing = { limit, formats: format ?? null, aim: aim ?? null };
      const weighed = await weighFile(decoding, file, weighing).catch((error: unknown) => {
        const reason = fileProblem(error, file);
        if (reason === null) throw error;
        return { reason };
      });
      if ('reason' in weighed) {
        isAllRight = false;
        say(`Left out  ${shown(context, file)}: ${weighed.reason}`);
        continue;
      }
      const { data, format: kept, quality, similarity } = weighed;
      const path = await writeNew(freePath(resolve(caller, out), file, kept), data);
      const at = quality === null ? '' : ` at quality ${quality}`;
      say(
        `${shown(context, path)}: ${formatLabel[kept]}${at}, ${formatWeight(data.length, limit.unit)} of ${formatLimit(limit)}, similarity ${similarity.toFixed(1)}.`,
      );
    }
    return isAllRight ? codes.right : codes.wrong;
  });
}
