import { collectRarely } from '../running/rareCollections.ts';
import { runCommand } from './commands/index.ts';

collectRarely();

process.exitCode = await runCommand(process.argv.slice(2), {
  caller: process.env.INKWELL_CALLER ?? process.cwd(),
  environment: process.env,
  say: (line) => console.log(line),
});
