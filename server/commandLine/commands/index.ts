import { Command, CommanderError } from 'commander';
import { UserError } from '../../userError.ts';
import { type Code, codes, Misuse } from '../codes.ts';
import type { Context, Run } from '../context.ts';
import { failureWords } from '../failures.ts';
import { accountCommand } from './account.ts';
import { backupCommand, restoreCommand } from './backup.ts';
import { blobsCommand } from './blobs.ts';
import { bookCommand } from './book.ts';
import { checkFileCommand } from './checkFile.ts';
import { completionCommand } from './completion.ts';
import { frameCommand, splitCommand } from './frame.ts';
import { projectCommand } from './project.ts';
import { verifyCommand } from './verify.ts';
import { watchCommand } from './watch.ts';
import { weighCommand } from './weigh.ts';

const commands = [
  frameCommand,
  splitCommand,
  watchCommand,
  weighCommand,
  checkFileCommand,
  verifyCommand,
  bookCommand,
  projectCommand,
  blobsCommand,
  accountCommand,
  backupCommand,
  restoreCommand,
  completionCommand,
];

/** All that end by themselves. @param run takes what a command comes to */
function allCommands(context: Context, run: Run): Command {
  const all = new Command('inkwell')
    .description('Frames pictures for the places of networks, without a screen.')
    .exitOverride()
    .configureOutput({ writeOut: (text) => context.say(text.trimEnd()) });
  for (const one of commands) all.addCommand(inherited(one(context, run), all));
  return all;
}

/** A command that is added as a whole takes over nothing by itself. */
function inherited(command: Command, from: Command): Command {
  command.copyInheritedSettings(from);
  for (const one of command.commands) inherited(one, command);
  return command;
}

/**
 * Runs one command to its end. What is wrong is said in a sentence on standard error, never by a stack.
 *
 * @param words what follows `./inkwell`
 */
export async function runCommand(words: readonly string[], context: Context): Promise<Code> {
  let code: Code = codes.right;
  const run: Run = async (task) => {
    code = await task();
  };
  try {
    await allCommands(context, run).parseAsync([...words], { from: 'user' });
    return code;
  } catch (error) {
    // What is wrong was said already, or help was asked for.
    if (error instanceof CommanderError) return error.exitCode === 0 ? codes.right : codes.misuse;
    if (error instanceof Misuse) {
      console.error(error.message);
      return codes.misuse;
    }
    console.error(failureWords(error));
    return error instanceof UserError && error.status === 404 ? codes.misuse : codes.wrong;
  }
}
