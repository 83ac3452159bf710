import { readFile, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { madePicture } from '@inkwell/demo/make.ts';
import { serviceSection } from './serviceSection.ts';

// Measures the last section anew and leaves the others as they were measured last.
const results = join(import.meta.dirname, 'RESULTS.md');
const section = await serviceSection(
  await madePicture('flyers', process.env.INKWELL_ART ?? join(tmpdir(), 'inkwell-art')),
);
const [before = ''] = (await readFile(results, 'utf8')).split(/^## Serving/m);
const day = new Date().toISOString().slice(0, 10);
await writeFile(results, `${before.trimEnd()}\n\n${section}\nThis section was measured by itself on ${day}.\n`);
console.log(section);
