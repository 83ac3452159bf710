import { stat } from 'node:fs/promises';
import { basename, resolve } from 'node:path';
import { NameSchema } from '@inkwell/core/model';
import { Command, InvalidArgumentError } from 'commander';
import { type Code, Misuse } from '../codes.ts';
import { alone, type Context, type Run, withServices, withWorker } from '../context.ts';
import { wordsNamed } from '../options.ts';

interface Taken {
  set: string;
  out: string;
  project?: string;
  words: ReadonlyMap<string, string>;
  settle: number;
  once: boolean;
}

/** Seconds. */
function seconds(text: string): number {
  const value = Number(text);
  if (text.trim() === '' || !(value >= 0.2 && value <= 600))
    throw new InvalidArgumentError('It is a number of seconds from 0.2 to 600.');
  return value;
}

/** `watch FOLDER --set NAME --out FOLDER` */
export const watchCommand = (context: Context, run: Run): Command =>
  new Command('watch')
    .description('Frames what comes into a folder, each picture once, for a set of places.')
    .argument('<folder>', 'the folder that pictures come into')
    .requiredOption('--set <name>', 'a set of places, with its finish, words, aim and names of files')
    .requiredOption('--out <folder>', 'where the files go, a folder for each picture')
    .option(
      '--project <name>',
      'the project in which all of it stands afterwards; left out, it is called as the folder',
    )
    .option('--words <name=text>', 'what an item of the set’s words says; once for each', wordsNamed, new Map())
    .option('--settle <seconds>', 'for how long a file has to stay as it is, to count as whole', seconds, 2)
    .option('--once', 'ends as soon as all that is there was looked at', false)
    .addHelpText(
      'after',
      `
What cannot be framed is moved to the folder “refused” in the one that is watched, beside a text that says why.
It ends with 0 where all was framed, 2 where something was refused or left out, and 1 where it was called wrongly.

Examples:
  ./inkwell watch camera --set "Weekly clip" --out framed
  ./inkwell watch camera --set "Weekly clip" --out framed --once`,
    )
    .action((folder: string, options: Taken) => run(() => watched(context, folder, options)));

async function watched(context: Context, named: string, options: Taken): Promise<Code> {
  const { set: setName, words, settle, once } = options;
  const folder = resolve(context.caller, named);
  const there = await stat(folder).catch(() => null);
  if (!there?.isDirectory()) throw new Misuse(`There is no folder ${named}. Make it, or name another.`);
  const out = resolve(context.caller, options.out);
  if (out === folder) throw new Misuse('Files cannot go into the folder that is watched. Name another with --out.');
  const name = NameSchema.safeParse(options.project ?? basename(folder));
  if (!name.success) throw new Misuse(name.error.issues[0]?.message ?? 'A project cannot be called that.');
  const { placesOf, worded } = await import('../framing/frameOptions.ts');
  const { watch } = await import('../watching/watch.ts');
  return withServices(context, async (services) => {
    const { set } = await placesOf(services, { places: [], set: setName, pieces: null });
    if (!set) throw new Misuse('Say which set of places: --set NAME.');
    worded(set.lettering ?? [], words);
    return alone(context, `watch ${out}`, () =>
      withWorker(context, () =>
        untilEnded((ended) =>
          watch(
            context,
            services,
            {
              folder,
              out,
              name: name.data,
              set,
              words,
              settle,
              isOnce: once,
            },
            ended,
          ),
        ),
      ),
    );
  });
}

/** Does something until Ctrl-C, or whoever has started the program, ends it. */
async function untilEnded(task: (ended: AbortSignal) => Promise<Code>): Promise<Code> {
  const ending = new AbortController();
  const end = () => ending.abort();
  process.on('SIGINT', end);
  process.on('SIGTERM', end);
  try {
    return await task(ending.signal);
  } finally {
    process.off('SIGINT', end);
    process.off('SIGTERM', end);
  }
}
