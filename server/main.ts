import { readSettings } from './settings.ts';
import { start } from './start.ts';

try {
  const running = await start(readSettings(process.env));
  console.log(`\n  Inkwell Frame is at ${running.address}\n  Ctrl-C stops it.\n`);
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
