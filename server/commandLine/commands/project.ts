import { createWriteStream } from 'node:fs';
import { mkdir } from 'node:fs/promises';
import { dirname, resolve } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { Command, Option } from 'commander';
import type { SheetsOf } from '../../tasks/carrying/importProject.ts';
import { type Code, codes, Misuse } from '../codes.ts';
import { type Context, type Run, shown, withServices } from '../context.ts';

/** `project export NAME --out FILE`, `project import FILE` */
export function projectCommand(context: Context, run: Run): Command {
  const project = new Command('project').description('Projects with their pictures, in and out as files.');
  project
    .command('export')
    .description('Writes a project with its pictures, sheets, finishes and fonts into a file for another machine.')
    .argument('<project>', 'its name, or its id')
    .requiredOption('--out <file>', 'a new file')
    .addHelpText(
      'after',
      `
Example:
  ./inkwell project export "Week 1" --out week-1.project.zip`,
    )
    .action((named: string, { out }: { out: string }) => run(() => exported(context, named, out)));
  project
    .command('import')
    .description('Takes a project in from a file: all of it or nothing.')
    .argument('<file>', 'a file that export has written')
    .addOption(
      new Option('--sheets <whose>', 'whose sheets hold where the file’s say something else than those here').choices([
        'here',
        'file',
      ]),
    )
    .addHelpText(
      'after',
      `
It ends with 0 where all of it is as it was, 2 where something is not, and 1 where it was called wrongly.

Example:
  ./inkwell project import week-1.project.zip --sheets file`,
    )
    .action((file: string, { sheets = null }: { sheets?: SheetsOf | null }) =>
      run(() => imported(context, file, sheets)),
    );
  return project;
}

const exported = (context: Context, named: string, out: string): Promise<Code> =>
  withServices(context, async (services) => {
    const { listProjects } = await import('../../store/projects/projects.ts');
    const { exportProject } = await import('../../tasks/carrying/exportProject.ts');
    const projects = await listProjects(services.db);
    const found = projects.filter(({ id, name }) => id === named || name.toLowerCase() === named.toLowerCase());
    const [project, ...others] = found;
    if (!project) throw new Misuse(`There is no project “${named}”. There are ${namesOf(projects)}.`);
    if (others.length > 0) {
      throw new Misuse(
        `${found.length} projects are called ${named}. Name one by its id: ${found.map(({ id }) => id).join(', ')}.`,
      );
    }
    const path = resolve(context.caller, out);
    await mkdir(dirname(path), { recursive: true });
    const { file, archive } = await exportProject(services, project.id);
    await pipeline(Readable.from(archive), createWriteStream(path, { flags: 'wx' }));
    const count = file.originals.length;
    context.say(`${file.name} with ${count} ${count === 1 ? 'picture' : 'pictures'} in ${shown(context, path)}.`);
    return codes.right;
  });

const mostNamed = 20;
const namesOf = (projects: readonly { name: string }[]) =>
  projects.length === 0
    ? 'none yet'
    : projects
        .slice(0, mostNamed)
        .map(({ name }) => `“${name}”`)
        .join(', ');

const imported = (context: Context, file: string, sheetsOf: SheetsOf | null): Promise<Code> =>
  withServices(context, async (services) => {
    const { importProject } = await import('../../tasks/carrying/importProject.ts');
    const { project, notes } = await importProject(services, resolve(context.caller, file), sheetsOf);
    const left = notes.filter(({ isLoss }) => isLoss);
    for (const { text } of notes) context.say(text);
    context.say(`${project.name} is here, with ${project.frames.length} frames.`);
    return left.length > 0 ? codes.wrong : codes.right;
  });
