import { readFile, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { madePicture } from '@inkwell/demo/make.ts';
import { bundle } from '@inkwell/server/bundling/bundle.ts';
import { collectRarely } from '@inkwell/server/running/rareCollections.ts';
import { bookSection } from './book.ts';
import { faultsSection } from './faults.ts';
import { finishingSection } from './finishingSection.ts';
import { largeSection } from './large.ts';
import { letteringSection } from './lettering.ts';
import { manySection } from './many.ts';
import { seeingSection } from './seeing/seeingSection.ts';
import { serviceSection } from './serviceSection.ts';
import { sharingSection } from './sharing.ts';
import { stripSection } from './strips.ts';
import { survivingSection } from './survivingSection.ts';
import { twelveSection } from './twelveSection.ts';
import { vastSection } from './vast.ts';
import { weighingSection } from './weighingSection.ts';
import { workersSection } from './workers.ts';

// As the program does.
collectRarely();
// What is measured as processes of its own is started from it.
await bundle();

// Measures one section anew, `npm run section -w bench -- serving`, and leaves the others as they were measured last.
const art = process.env.INKWELL_ART ?? join(tmpdir(), 'inkwell-art');
const sections: Record<string, () => Promise<string>> = {
  twelve: async () => twelveSection(await madePicture('flyers', art)),
  strip: async () => stripSection(await madePicture('panorama', art)),
  finishing: async () => finishingSection(await madePicture('flyers', art), art),
  weighing: async () => weighingSection(art, await madePicture('flyers', art)),
  seeing: async () => seeingSection(await madePicture('flyers', art), art),
  lettering: async () => letteringSection(await madePicture('flyers', art), art),
  surviving: async () => survivingSection(art),
  vast: vastSection,
  book: bookSection,
  large: largeSection,
  workers: workersSection,
  many: async () => manySection(await madePicture('flyers', art)),
  faults: faultsSection,
  sharing: async () => sharingSection(await madePicture('flyers', art)),
  serving: async () => serviceSection(await madePicture('flyers', art)),
};
const measure = sections[process.argv[2] ?? ''];
if (!measure) throw new Error(`Name a section: ${Object.keys(sections).join(', ')}.`);
const section = await measure();
const [title = ''] = section.split('\n');
const results = join(import.meta.dirname, 'RESULTS.md');
const day = new Date().toISOString().slice(0, 10);
const measured = `${section}\nThis section was measured by itself on ${day}.\n`;
const parts = (await readFile(results, 'utf8')).split(/^(?=## )/m);
const at = parts.findIndex((part) => part.startsWith(`${title}\n`));
if (at < 0) throw new Error(`The results have no section ${title}.`);
parts[at] = at === parts.length - 1 ? measured : `${measured}\n`;
await writeFile(results, parts.join(''));
console.log(section);
