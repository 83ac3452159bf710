import { readFile, stat } from 'node:fs/promises';
import { resolve } from 'node:path';
import { formatWeight, originalLimits, sidesWords } from '@inkwell/core/model';
import { placeReasons } from '@inkwell/core/posting';
import { Command } from 'commander';
import { measureFile } from '../../imaging/measuring/measure.ts';
import { UserError } from '../../userError.ts';
import { type Code, codes } from '../codes.ts';
import { type Context, type Run, shown, withServices } from '../context.ts';
import { pictureFiles } from '../pictureFiles.ts';
import { knownPlace } from '../places.ts';

/** `check-file FILES… --place ID` */
export const checkFileCommand = (context: Context, run: Run): Command =>
  new Command('check-file')
    .description('Says whether a place takes finished files: their dimensions, format and weight.')
    .argument('<files...>', 'files, folders with pictures, and patterns in quotes')
    .requiredOption('--place <id>', 'a place, such as sunpane/story')
    .addHelpText(
      'after',
      `
It ends with 0 where all are taken, 2 where one is not, and 1 where it was called wrongly.

Example:
  ./inkwell check-file kites.jpg --place sunpane/story`,
    )
    .action((files: string[], { place }: { place: string }) => run(() => checkFiles(context, files, place)));

const checkFiles = (context: Context, named: string[], placeId: string): Promise<Code> =>
  withServices(context, async ({ planner }) => {
    const { place } = knownPlace((await planner.open()).places, placeId);
    let isAllRight = true;
    for (const file of await pictureFiles(named, context.caller)) {
      const name = shown(context, file);
      const opened = await openedFile(resolve(context.caller, file));
      const reasons = typeof opened === 'string' ? [opened] : placeReasons(opened, place);
      if (reasons.length > 0) isAllRight = false;
      context.say(
        reasons.length === 0 && typeof opened !== 'string'
          ? `Right  ${name}: ${sidesWords(opened)}, ${formatWeight(opened.bytes, place.limit.unit)}.`
          : `Wrong  ${name}: ${reasons.join(' ')}`,
      );
    }
    return isAllRight ? codes.right : codes.wrong;
  });

/** What a file is, or why that cannot be said. */
async function openedFile(path: string) {
  const { size } = await stat(path);
  if (size > originalLimits.bytes) return `It weighs more than ${originalLimits.bytes / 1e6} MB.`;
  const data = await readFile(path);
  return measureFile(data).catch((error: unknown) => {
    if (error instanceof UserError) throw error;
    // Whatever a decoder says of it: it is no picture, or not a whole one.
    return 'It cannot be opened: it is damaged, or no picture.';
  });
}
