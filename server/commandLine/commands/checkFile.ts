import { readFile, stat } from 'node:fs/promises';
import { formatWeight, type MeasuredFile, originalLimits, sidesWords } from '@inkwell/core/model';
import { placeReasons } from '@inkwell/core/posting';
import { Command } from 'commander';
import { measureFile } from '../../imaging/measuring/opening.ts';
import { type Code, codes } from '../codes.ts';
import { type Context, type Run, shown, withServices } from '../context.ts';
import { fileProblem } from '../failures.ts';
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
      const opened = await openedFile(file);
      const reasons = 'problem' in opened ? [opened.problem] : placeReasons(opened, place);
      if (reasons.length > 0) isAllRight = false;
      const words =
        'problem' in opened || reasons.length > 0
          ? reasons.join(' ')
          : `${sidesWords(opened)}, ${formatWeight(opened.bytes, place.limit.unit)}.`;
      context.say(`${reasons.length > 0 ? 'Wrong' : 'Right'}  ${shown(context, file)}: ${words}`);
    }
    return isAllRight ? codes.right : codes.wrong;
  });

/** What a file is, or why that cannot be said. */
async function openedFile(path: string): Promise<MeasuredFile | { problem: string }> {
  try {
    const { size } = await stat(path);
    if (size > originalLimits.bytes) return { problem: `It weighs more than ${originalLimits.bytes / 1e6} MB.` };
    return await measureFile(await readFile(path));
  } catch (error) {
    // Whatever a decoder says of it: it is no picture, or not a whole one.
    return { problem: fileProblem(error, path) ?? 'It cannot be opened: it is damaged, or no picture.' };
  }
}
