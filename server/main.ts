import { parseArgs } from 'node:util';
import { giveWay } from './running/giveWay.ts';
import { collectRarely } from './running/rareCollections.ts';
import { readBackupSettings } from './settings/backupSettings.ts';
import { readSettings, readWorkerSettings } from './settings/settings.ts';
import { startNetworks, startServer, startWorker } from './start.ts';

/** How far what draws pictures for a person stands back behind what answers requests, and a worker behind both. */
const niceness = { drawing: 10, worker: 19, standins: 19 };

const [role, ...words] = process.argv.slice(2);

/** The options of a worker. @throws Error in plain words where there is another */
function optionsIn(args: string[]) {
  const text = { type: 'string' } as const;
  try {
    return parseArgs({ args, options: { jobs: text, megapixels: text, drain: text, metrics: text } });
  } catch (error) {
    const said = error instanceof Error ? error.message : String(error);
    throw new Error(
      `${said.split('\n')[0]}. A worker takes --jobs, --megapixels, --drain and --metrics; --help says more.`,
    );
  }
}

/** What a worker is told by options goes before what the environment says. @throws Error where there is no such option */
function workerEnvironment(): NodeJS.ProcessEnv {
  const { values } = optionsIn(words);
  const told = {
    INKWELL_JOBS: values.jobs,
    INKWELL_PIXELS: values.megapixels,
    INKWELL_DRAIN: values.drain,
    INKWELL_METRICS: values.metrics,
  };
  return { ...process.env, ...Object.fromEntries(Object.entries(told).filter(([, value]) => value !== undefined)) };
}

async function run(): Promise<{ stop(): Promise<void> }> {
  if (role === 'worker') {
    await giveWay(niceness.worker, true);
    const running = await startWorker(
      readSettings(process.env),
      readWorkerSettings(workerEnvironment()),
      readBackupSettings(process.env),
    );
    console.log('A worker of Inkwell Frame is at work.');
    return running;
  }
  if (role === 'serve') {
    await giveWay(niceness.drawing, false);
    const running = await startServer(readSettings(process.env));
    console.log(`\n  Inkwell Frame is at ${running.address}\n  Ctrl-C stops it.\n`);
    if (running.firstLink)
      console.log(`  Nobody has an account yet. Make the first within a day at\n  ${running.firstLink}\n`);
    return running;
  }
  if (role === 'standins') {
    await giveWay(niceness.standins, false);
    const running = await startNetworks(readSettings(process.env));
    console.log(`${running.networks.length} simulated networks are at work.`);
    return running;
  }
  throw new Error('Say which part of the program this is to be: serve, worker or standins.');
}

collectRarely();
try {
  const running = await run();
  const stop = () => {
    running.stop().then(
      () => process.exit(0),
      (error: unknown) => {
        console.error(error);
        process.exit(1);
      },
    );
  };
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
} catch (error) {
  console.error(`Inkwell Frame could not start. ${error instanceof Error ? error.message : String(error)}`);
  process.exit(1);
}
