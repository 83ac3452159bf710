import { resolve } from 'node:path';
import { Command } from 'commander';
import { type Code, codes } from '../codes.ts';
import type { Context, Run } from '../context.ts';

/** `verify ARCHIVE` */
export const verifyCommand = (context: Context, run: Run): Command =>
  new Command('verify')
    .description('Holds the archive of a delivery against its manifest and the spec book, without a database.')
    .argument('<archive>', 'the archive as it was downloaded')
    .addHelpText('after', '\nExample:\n  ./inkwell verify festival-week.zip')
    .action((archive: string) => run(() => verify(context, resolve(context.caller, archive))));

async function verify({ say }: Context, path: string): Promise<Code> {
  const { verifyArchive } = await import('../../tasks/verifying/verifyArchive.ts');
  const { manifest, observations } = await verifyArchive(path);
  for (const { path: file, isWrong, text } of observations) say(`${isWrong ? 'Wrong' : 'Note'}  ${file}: ${text}`);
  const wrong = new Set(observations.filter(({ isWrong }) => isWrong).map((one) => one.path)).size;
  const count = `${manifest.files.length} ${manifest.files.length === 1 ? 'file' : 'files'}`;
  const outcome = wrong === 0 ? 'all as they were delivered' : `${wrong} wrong`;
  say(`${manifest.project}, delivered ${manifest.delivered}: ${count}, ${outcome}.`);
  return wrong === 0 ? codes.right : codes.wrong;
}
