import { readFile, stat } from 'node:fs/promises';
import { resolve } from 'node:path';
import type { ImportLine, ImportPlan } from '@inkwell/core/bookkeeping';
import { Command } from 'commander';
import { UserError } from '../../userError.ts';
import { type Code, codes } from '../codes.ts';
import { type Context, type Run, shown, withServices } from '../context.ts';
import { writeAs } from '../writeNew.ts';

/** A file of sheets has at most so many bytes. */
const mostBytes = 20_000_000;

interface ExportOptions {
  csv: boolean;
  out?: string;
}

interface ImportOptions {
  take: boolean;
  by: string;
}

/** `book export [SHEET]`, `book import FILE` */
export function bookCommand(context: Context, run: Run): Command {
  const book = new Command('book').description('The spec book, in and out as files.');
  book
    .command('export')
    .description('Writes all sheets, or one of them, as JSON or as a table for a spreadsheet.')
    .argument('[sheet]', 'the id of one sheet; left out, all of them')
    .option('--csv', 'as a table, one place a row', false)
    .option('--out <file>', 'a new file; left out, it is written to standard output')
    .addHelpText(
      'after',
      `
Examples:
  ./inkwell book export --out book.json
  ./inkwell book export sunpane --csv --out sunpane.csv`,
    )
    .action((sheet: string | undefined, options: ExportOptions) => run(() => exported(context, sheet, options)));
  book
    .command('import')
    .description('Says line by line what a file would change, and takes it with --take.')
    .argument('<file>', 'JSON or CSV, as export writes it')
    .option('--take', 'takes what was understood', false)
    .option('--by <name>', 'who says so', '')
    .addHelpText(
      'after',
      `
It ends with 0 where all was understood, 2 where something was not, and 1 where it was called wrongly.

Examples:
  ./inkwell book import book.json
  ./inkwell book import book.json --take --by Tilda`,
    )
    .action((file: string, options: ImportOptions) => run(() => imported(context, file, options)));
  return book;
}

const exported = (context: Context, sheet: string | undefined, { csv, out }: ExportOptions): Promise<Code> =>
  withServices(context, async (services) => {
    const { sheetFiles } = await import('../../tasks/book/importBook.ts');
    const { bookAsCsv, bookAsJson } = await import('../../tasks/book/bookFiles.ts');
    const sheets = await sheetFiles(services, sheet ?? null);
    const text = csv ? bookAsCsv(sheets) : bookAsJson(sheets);
    if (out === undefined) context.say(text.trimEnd());
    else {
      const path = await writeAs(resolve(context.caller, out), text);
      context.say(`${sheets.length} ${sheets.length === 1 ? 'sheet' : 'sheets'} in ${shown(context, path)}.`);
    }
    return codes.right;
  });

const imported = (context: Context, file: string, { take, by }: ImportOptions): Promise<Code> =>
  withServices(context, async (services) => {
    const path = resolve(context.caller, file);
    if ((await stat(path)).size > mostBytes)
      throw new UserError(`${file} is larger than 20 MB, the most that is read.`);
    const text = await readFile(path, 'utf8');
    const { planImport, takeImport } = await import('../../tasks/book/importBook.ts');
    const plan = await planImport(services, text);
    const wrong = sayPlan(context, plan);
    const wanted = plan.sheets.filter(({ kind }) => kind !== 'same').map(({ slug, version }) => ({ slug, version }));
    if (!take)
      context.say(wanted.length > 0 ? 'Nothing was taken yet: --take does that.' : 'There is nothing to take.');
    else {
      const { taken } = await takeImport(services, text, wanted, by.trim());
      context.say(`${taken} ${taken === 1 ? 'sheet was' : 'sheets were'} taken.`);
    }
    return wrong > 0 ? codes.wrong : codes.right;
  });

/** Says what a file would change. @returns how many lines were not understood */
function sayPlan({ say }: Context, { sheets, notUnderstood }: ImportPlan): number {
  const line = ({ at, place, kind, words }: ImportLine) =>
    say(`  ${kind}  ${[at, place, ...words].filter(Boolean).join('; ')}`);
  for (const { name, kind, note, lines } of sheets) {
    say(`${name}: ${kind}${note ? `. ${note}` : ''}`);
    for (const one of lines) if (one.kind !== 'same') line(one);
  }
  for (const one of notUnderstood) line(one);
  return (
    notUnderstood.length + sheets.flatMap(({ lines }) => lines).filter(({ kind }) => kind === 'not understood').length
  );
}
