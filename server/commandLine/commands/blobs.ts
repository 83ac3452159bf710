import { formatWeight } from '@inkwell/core/model';
import { Argument, Command } from 'commander';
import { s3Settings } from '../../settings/settings.ts';
import type { BlobPlace } from '../../store/schema/index.ts';
import { type Code, codes, Misuse } from '../codes.ts';
import { type Context, type Run, settingsOf, withServices } from '../context.ts';
import { Progress } from '../progress.ts';

const named: Record<BlobPlace, string> = { database: 'in the database', s3: 'in the S3 store' };

/** `blobs where`, `blobs move PLACE` */
export function blobsCommand(context: Context, run: Run): Command {
  const blobs = new Command('blobs').description('The bytes of originals and files: where they lie, and moved.');
  blobs
    .command('where')
    .description('Says how many bytes lie where.')
    .addHelpText('after', '\nExample:\n  ./inkwell blobs where')
    .action(() => run(() => where(context)));
  blobs
    .command('move')
    .description('Moves all bytes, while the program may be at work. Broken off, it goes on when it is run again.')
    .addArgument(new Argument('<place>', 'where they go').choices(['database', 's3']))
    .addHelpText(
      'after',
      `
Bytes are read again at their new place before they are left out at the old. The S3 store is the one of the settings
INKWELL_S3_ENDPOINT, INKWELL_S3_BUCKET, INKWELL_S3_KEY and INKWELL_S3_SECRET; docs/scaling.md says more.

Examples:
  ./inkwell blobs move s3
  INKWELL_BLOBS=database ./inkwell blobs move database`,
    )
    .action((to: BlobPlace) => run(() => moved(context, to)));
  return blobs;
}

const where = (context: Context): Promise<Code> =>
  withServices(context, async ({ db }) => {
    const { blobsByPlace } = await import('../../store/blobs/moving.ts');
    for (const [place, { count, bytes }] of Object.entries(await blobsByPlace(db))) {
      context.say(
        `${count} ${count === 1 ? 'file' : 'files'}, ${formatWeight(bytes, 'MB')}, ${named[place as BlobPlace]}.`,
      );
    }
    return codes.right;
  });

const moved = (context: Context, to: BlobPlace): Promise<Code> =>
  withServices(context, async ({ db }) => {
    const s3 = s3Settings(settingsOf(context));
    if (!s3) throw new Misuse('Name the S3 store first, by INKWELL_S3_ENDPOINT and the settings that go with it.');
    const takesNew = s3.takesNew ? 's3' : 'database';
    if (takesNew !== to) {
      throw new Misuse(
        `New bytes still go ${named[takesNew].replace('in', 'into')}. Start this with INKWELL_BLOBS=${to}, and the program as well.`,
      );
    }
    const { blobsByPlace } = await import('../../store/blobs/moving.ts');
    const { moveBlobs } = await import('../../tasks/library/moveBlobs.ts');
    const there = await blobsByPlace(db);
    const progress = new Progress('Files', there[to === 's3' ? 'database' : 's3'].count, false);
    let [count, bytes] = [0, 0];
    try {
      await moveBlobs(db, to, (more) => {
        bytes += more;
        count += 1;
        progress.at(count);
      });
    } finally {
      progress.end();
    }
    context.say(
      `${count} ${count === 1 ? 'file' : 'files'} moved, ${formatWeight(bytes, 'MB')}. All lie ${named[to]} now.`,
    );
    return codes.right;
  });
