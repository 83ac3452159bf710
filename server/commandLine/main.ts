import { resolve } from 'node:path';
import type { Aim } from '@inkwell/core/model';
import { Command, CommanderError, InvalidArgumentError } from 'commander';
import { readSettings } from '../settings.ts';
import { openServices, startWorker } from '../start.ts';
import { type Code, codes, ended } from './codes.ts';
import { frame } from './frame.ts';
import { pictureFiles } from './pictureFiles.ts';
import { verify } from './verify.ts';

/** Where the command was called: names of files are meant from there. */
const caller = process.env.INKWELL_CALLER ?? process.cwd();

const aims: Record<string, Aim> = {
  fits: { kind: 'as good as fits' },
  flick: { kind: 'no heavier than it needs', level: 'flick' },
  look: { kind: 'no heavier than it needs', level: 'look' },
  glance: { kind: 'no heavier than it needs', level: 'glance' },
};

const aimOf = (name: string): Aim => {
  const aim = aims[name];
  if (!aim) throw new InvalidArgumentError(`There are ${Object.keys(aims).join(', ')}.`);
  return aim;
};

const listOf = (text: string): string[] =>
  text
    .split(',')
    .map((one) => one.trim())
    .filter((one) => one !== '');

/** Collects `name=text`, each once. */
function wordsOf(text: string, before: ReadonlyMap<string, string>): ReadonlyMap<string, string> {
  const at = text.indexOf('=');
  if (at < 1) throw new InvalidArgumentError('Words are given as name=text, such as title="Kites over the dunes".');
  return new Map(before).set(text.slice(0, at).trim().toLowerCase(), text.slice(at + 1));
}

/** Does something with the services of the program, and with a worker of its own that does the work. */
async function withProgram(
  task: (services: Awaited<ReturnType<typeof openServices>>['services']) => Promise<Code>,
): Promise<Code> {
  const settings = readSettings(process.env);
  const { services, stop } = await openServices(settings);
  const { stop: stopWorker } = await startWorker(settings);
  try {
    return await task(services);
  } finally {
    await stopWorker();
    await stop();
  }
}

const today = () => new Date().toISOString().slice(0, 10);

function program(run: (task: () => Promise<Code>) => Promise<void>): Command {
  const all = new Command('inkwell').exitOverride().configureHelp({ showGlobalOptions: false });
  all
    .command('frame')
    .description('Frames pictures for places and writes the files, with a manifest, into a folder.')
    .argument('<pictures...>', 'files, folders with pictures, and patterns in quotes')
    .requiredOption('--out <folder>', 'where the files go; a folder that holds a delivery is refused')
    .option('--places <ids>', 'places, with commas between', listOf, [])
    .option('--set <name>', 'a set of places, with its finish, words, aim and names of files')
    .option(
      '--project <name>',
      'what the project is called in which all of it stands afterwards',
      `Pictures of ${today()}`,
    )
    .option('--finish <name>', 'how the pictures are finished')
    .option('--aim <aim>', 'what the bytes are spent on: fits, flick, look or glance', aimOf)
    .option(
      '--words <name=text>',
      'what an item of the set’s words says; more than once for several',
      wordsOf,
      new Map(),
    )
    .option('--json', 'says what came of it as JSON', false)
    .addHelpText(
      'after',
      `
It ends with 0 where all is written, 2 where something was left out, and 1 where it was called wrongly.

Examples:
  ./inkwell frame kites.jpg --places sunpane/story,candlecast/video-thumbnail --out week-1
  ./inkwell frame photos 'scans/*.tif' --set "Weekly clip" --words title="Episode 12" --out week-2 --json`,
    )
    .action((pictures: string[], options) =>
      run(async () => {
        const files = await pictureFiles(pictures, caller);
        return withProgram((services) =>
          frame(services, files, {
            places: options.places,
            set: options.set ?? null,
            out: resolve(caller, options.out),
            project: options.project,
            finish: options.finish ?? null,
            aim: options.aim ?? null,
            words: options.words,
            isJson: options.json,
          }),
        );
      }),
    );
  all
    .command('verify')
    .description('Holds the archive of a delivery against its manifest and the spec book, without a database.')
    .argument('<archive>', 'the archive as it was downloaded')
    .addHelpText('after', '\nExample:\n  ./inkwell verify festival-week_2026-09-12_1405.zip')
    .action((archive: string) => run(() => verify(resolve(caller, archive))));
  return all;
}

let result: Promise<void> = Promise.resolve();
try {
  await program((task) => {
    result = ended(task);
    return result;
  }).parseAsync();
  await result;
} catch (error) {
  // What is wrong was said already, or help was asked for.
  if (!(error instanceof CommanderError)) throw error;
  process.exitCode = error.exitCode === 0 ? codes.right : codes.misuse;
}
