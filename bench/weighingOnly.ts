import { readFile, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { madePicture } from '@inkwell/demo/make.ts';
import { weighingSection } from './weighingSection.ts';

// Measures one section anew and leaves the others as they were measured last.
const art = process.env.INKWELL_ART ?? join(tmpdir(), 'inkwell-art');
const results = join(import.meta.dirname, 'RESULTS.md');
const next = '## Composing';
const section = await weighingSection(art, await madePicture('flyers', art));
const text = await readFile(results, 'utf8');
const before = text.slice(0, text.search(/^## (Weighing|Composing)/m));
const day = new Date().toISOString().slice(0, 10);
await writeFile(
  results,
  `${before}${section}\nThis section was measured by itself on ${day}.\n\n${text.slice(text.indexOf(next))}`,
);
console.log(section);
