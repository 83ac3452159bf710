import { spawnSync } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';

// `npm run mutants [FOLDER …]`: changes one operator of core at a time, and sees whether the tests of its folder notice. Tests of
// other folders reach nearly all of it as well, but they are there for something else, and to run them takes hours.
const root = join(import.meta.dirname, '..');
const folders = [
  'geometry',
  'framing',
  'splitting',
  'weighing',
  'planning',
  'checking',
  'naming',
  'model',
  'planes',
  'finishing',
  'seeing',
  'proposing',
];
/** Whose tests notice what is wrong in a folder, where those are not its own alone: kernels are seen by what they do. */
const watchers: Record<string, readonly string[]> = { planes: ['planes', 'seeing', 'finishing'] };
/** Folders of which only every so many-th ten lines are changed, for all their mutants take hours. */
const sampled: Record<string, number> = { framing: 4, finishing: 4 };
const report = join(root, '.inkwell', 'mutants', 'last.json');

const ReportSchema = z.object({
  files: z.record(
    z.string(),
    z.object({
      source: z.string(),
      mutants: z.array(
        z.object({
          status: z.string(),
          mutatorName: z.string(),
          replacement: z.string().optional(),
          location: z.object({
            start: z.object({ line: z.int(), column: z.int() }),
            end: z.object({ line: z.int(), column: z.int() }),
          }),
        }),
      ),
    }),
  ),
});

const noticed = ['Killed', 'Timeout'];
const missed = ['Survived', 'NoCoverage'];

/** The files of a folder that are changed, or of a sampled folder the lines. */
function changed(folder: string): string[] {
  const every = sampled[folder];
  const others = ['!core/**/*.test.ts', '!core/**/test[A-Z]*.ts', '!core/**/index.ts', '!core/planes/assembly/**'];
  if (!every) return [`core/${folder}/**/*.ts`, ...others];
  const files = readdirSync(join(root, 'core', folder), { recursive: true, encoding: 'utf8' }).filter((name) => {
    return name.endsWith('.ts') && !/\.test\.ts$|(^|\/)(test[A-Z][^/]*|index)\.ts$/.test(name);
  });
  const tens = files.sort().flatMap((name) => {
    const lines = readFileSync(join(root, 'core', folder, name), 'utf8').split('\n').length;
    const count = Math.ceil(lines / 10);
    return Array.from({ length: count }, (_, ten) => `core/${folder}/${name}:${10 * ten + 1}-${10 * ten + 10}`);
  });
  return tens.filter((_, at) => at % every === 0);
}

/** Of one folder: how many mutants were noticed, and where those are that were not. */
function mutantsOf(folder: string): { noticed: number; missed: string[] } {
  const { status } = spawnSync('npx', ['stryker', 'run', '--mutate', changed(folder).join(',')], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, INKWELL_WATCHERS: (watchers[folder] ?? [folder]).join(',') },
  });
  if (status !== 0) throw new Error(`The mutants of ${folder} could not be run.`);
  const files = Object.entries(ReportSchema.parse(JSON.parse(readFileSync(report, 'utf8'))).files);
  const found = { noticed: 0, missed: [] as string[] };
  for (const [path, { source, mutants }] of files) {
    const lines = source.split('\n');
    for (const { status, replacement = '', location } of mutants) {
      if (noticed.includes(status)) found.noticed += 1;
      if (!missed.includes(status)) continue;
      const { start, end } = location;
      const line = lines[start.line - 1] ?? '';
      const was = line.slice(start.column - 1, end.line === start.line ? end.column - 1 : undefined);
      found.missed.push(`${path}:${start.line}  ${was.trim()}  ->  ${replacement.replaceAll(/\s+/g, ' ')}`);
    }
  }
  return found;
}

const asked = process.argv.slice(2);
const unknown = asked.filter((folder) => !folders.includes(folder));
if (unknown.length > 0) throw new Error(`There is no ${unknown.join(', ')}. Folders: ${folders.join(', ')}.`);
const rows = (asked.length > 0 ? asked : folders).map((folder) => ({ folder, ...mutantsOf(folder) }));
for (const { folder, missed } of rows) console.log([`\n${folder}: not noticed`, ...missed].join('\n'));
console.log('\n| folder | mutants | noticed |\n|---|---|---|');
for (const { folder, noticed, missed } of rows) {
  const all = noticed + missed.length;
  console.log(`| ${folder} | ${all} | ${((100 * noticed) / Math.max(1, all)).toFixed(1)} % |`);
}
