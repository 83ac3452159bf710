import { setPriority } from 'node:os';
import { giveWay } from './giveWay.ts';
import { readSettings } from './settings.ts';
import { startServer, startWorker } from './start.ts';

/** How far a worker stands back behind whoever waits at the bench, as the system counts it: 0 not at all, 19 the most. */
const workerNiceness = 15;

const role = process.argv[2];

async function run(): Promise<{ stop(): Promise<void> }> {
  if (role === 'worker') {
    setPriority(workerNiceness);
    const running = await startWorker(readSettings(process.env));
    console.log('A worker of Inkwell Frame is at work.');
    return running;
  }
  if (role === 'serve') {
    await giveWay();
    const running = await startServer(readSettings(process.env));
    console.log(`\n  Inkwell Frame is at ${running.address}\n  Ctrl-C stops it.\n`);
    return running;
  }
  throw new Error('Say which part of the program this is to be: serve or worker.');
}

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
