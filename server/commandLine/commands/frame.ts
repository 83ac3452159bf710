import { resolve } from 'node:path';
import type { Aim } from '@inkwell/core/model';
import { Command } from 'commander';
import type { Code } from '../codes.ts';
import { type Context, type Run, withServices, withWorker } from '../context.ts';
import type { FrameOptions } from '../framing/frameOptions.ts';
import { aimNamed, counted, listed, wordsNamed } from '../options.ts';
import { pictureFiles } from '../pictureFiles.ts';

/** What both commands take. */
interface Taken {
  out: string;
  project: string;
  finish?: string;
  aim?: Aim;
  json: boolean;
}

const endings =
  'It ends with 0 where all is written, 2 where something was left out, and 1 where it was called wrongly.';

const today = () => new Date().toISOString().slice(0, 10);

const beginning = (name: string): Command =>
  new Command(name)
    .argument('<pictures...>', 'files, folders with pictures, and patterns in quotes')
    .requiredOption('--out <folder>', 'where the files go; a folder that holds a delivery is refused')
    .option('--project <name>', 'the project in which all of it stands afterwards', `Pictures of ${today()}`)
    .option('--finish <name>', 'how the pictures are finished')
    .option('--aim <aim>', 'what the bytes are spent on: fits, flick, look or glance', aimNamed)
    .option('--json', 'says what came of it as JSON', false);

const shared = ({ caller }: Context, { out, project, finish, aim, json }: Taken) => ({
  out: resolve(caller, out),
  project,
  finish: finish ?? null,
  aim: aim ?? null,
  isJson: json,
});

async function framed(context: Context, pictures: readonly string[], options: FrameOptions): Promise<Code> {
  const files = await pictureFiles(pictures, context.caller);
  const { frame, frameTask } = await import('../framing/frame.ts');
  return withServices(context, async (services) => {
    const task = await frameTask(services, files, options);
    return withWorker(context, () => frame(context, services, task, options));
  });
}

/** `frame PICTURES… --places IDS | --set NAME --out FOLDER` */
export const frameCommand = (context: Context, run: Run): Command =>
  beginning('frame')
    .description('Frames pictures for places and writes the files, with a manifest, into a folder.')
    .option('--places <ids>', 'places, with commas between, such as sunpane/story', listed, [])
    .option('--set <name>', 'a set of places, with its finish, words, aim and names of files')
    .option('--words <name=text>', 'what an item of the set’s words says; once for each', wordsNamed, new Map())
    .option('--series <table>', 'a table (CSV) with a row for each picture, and what its words say there')
    .addHelpText(
      'after',
      `
${endings}

Examples:
  ./inkwell frame kites.jpg --places sunpane/story,candlecast/video-thumbnail --out week-1
  ./inkwell frame photos 'scans/*.tif' --set "Weekly clip" --words title="Episode 12" --out week-2 --json
  ./inkwell frame photos --set "Weekly clip" --series episodes.csv --out week-3`,
    )
    .action(
      (
        pictures: string[],
        options: Taken & { places: string[]; set?: string; words: Map<string, string>; series?: string },
      ) =>
        run(() => {
          const { places, set = null, words } = options;
          const series = options.series === undefined ? null : resolve(context.caller, options.series);
          return framed(context, pictures, { ...shared(context, options), places, set, words, series, pieces: null });
        }),
    );

/** `split PICTURES… --place ID --out FOLDER` */
export const splitCommand = (context: Context, run: Run): Command =>
  beginning('split')
    .description('Cuts wide pictures into the panels or tiles of a place, and writes them in posting order.')
    .requiredOption('--place <id>', 'a place that takes several pieces, such as sunpane/swipe-panels-square')
    .option('--panels <count>', 'into how many panels, or rows of tiles; left out, what suits the picture', counted)
    .addHelpText(
      'after',
      `
${endings}

Example:
  ./inkwell split dunes.jpg --place sunpane/swipe-panels-square --panels 4 --out strip`,
    )
    .action((pictures: string[], options: Taken & { place: string; panels?: number }) =>
      run(() => {
        const { place, panels = null } = options;
        const asked = { places: [place], set: null, words: new Map(), series: null, pieces: { panels } };
        return framed(context, pictures, { ...shared(context, options), ...asked });
      }),
    );
