import { writeFile } from 'node:fs/promises';
import { cpus, tmpdir, totalmem } from 'node:os';
import { join } from 'node:path';
import { madePicture } from '@inkwell/demo/make.ts';
import { bundle } from '@inkwell/server/bundling/bundle.ts';
import { collectRarely } from '@inkwell/server/running/rareCollections.ts';
import { bookSection } from './book.ts';
import { finishingSection } from './finishingSection.ts';
import { compareFraming, composeTimes, type FramingComparison } from './framing.ts';
import { dragging } from './inBrowser.ts';
import { median } from './inProcess.ts';
import { largeSection } from './large.ts';
import { letteringSection } from './lettering.ts';
import { manySection } from './many.ts';
import { Program } from './program.ts';
import { seeingSection } from './seeing/seeingSection.ts';
import { serviceSection } from './serviceSection.ts';
import { sharingSection } from './sharing.ts';
import { stripSection } from './strips.ts';
import { survivingSection } from './survivingSection.ts';
import { proofTimes } from './throughServer.ts';
import { twelveSection } from './twelveSection.ts';
import { vastSection } from './vast.ts';
import { weighingSection } from './weighingSection.ts';
import { workersSection } from './workers.ts';

// As the program does.
collectRarely();
// What is measured as processes of its own is started from it.
await bundle();

const art = process.env.INKWELL_ART ?? join(tmpdir(), 'inkwell-art');
const picture = await madePicture('flyers', art);

console.log('Twelve places from one picture …');
const twelve = await twelveSection(picture);
console.log('Ten panels from one panorama …');
const strip = await stripSection(await madePicture('panorama', art));
console.log('Finishing …');
const finishing = await finishingSection(picture, art);
console.log('Weighing …');
const weighing = await weighingSection(art, picture);
console.log('Composed windows …');
const composing = composeTimes();
const framing = await compareFraming();
console.log('What is seen …');
const seeing = await seeingSection(picture, art);
console.log('Words over pictures …');
const lettering = await letteringSection(picture, art);
console.log('Proofs through the server …');
const program = await Program.start();
const times = (await proofTimes(program.client, picture, 80)).slice(10).sort((a, b) => a - b);
await program.stop();
console.log('Dragging in the browser …');
const watched = await Program.start();
const drag = await dragging(watched.client, picture);
await watched.stop();
console.log('Vast pictures …');
const vast = await vastSection();

console.log('What survives an upload …');
const surviving = await survivingSection(art);
console.log('The spec book …');
const book = await bookSection();
console.log('A large project …');
const large = await largeSection();
console.log('Workers …');
const workers = await workersSection();
console.log('Many pictures …');
const many = await manySection(picture);
console.log('Sharing …');
const sharing = await sharingSection(picture);
console.log('Serving …');
const serving = await serviceSection(picture);

const percent = (share: number) => `${(share * 100).toFixed(1)} %`;
const framingRow = (name: string, one: FramingComparison, way: keyof FramingComparison['kept']) =>
  `| ${name} | **${percent(one.kept[way] / one.possible)}** | ${percent(one.keepShown[way])} | ${percent(one.avoidShown[way])} |`;
const p95 = times[Math.floor(times.length * 0.95)] ?? Number.NaN;
const text = `# Measured

With \`npm run bench\` on ${new Date().toISOString().slice(0, 10)}, on ${cpus().length} cores of ${cpus()[0]?.model.trim()}, ${Math.round(totalmem() / 1e9)} GB, Node.js ${process.version}.
Medians of seven rounds in which the two sides took turns; ratios are medians of the rounds' ratios.

${twelve}
${strip}
${finishing}
${weighing}
## Composing
Nine keep and three avoid marks into ${composing.places} places: **${composing.all.toFixed(0)} ms** in all (aim: under 100), the slowest place ${composing.slowest.toFixed(1)} ms (aim: under 5).

Eight made pictures with known subjects at the same places, ${framing.frames} frames; in ${framing.possible} of them a window of a fine grid keeps all that must be kept.

| window | all kept, of those where it is possible | keep area shown | avoid area shown |
|---|---|---|---|
${framingRow('composed from the marks', framing, 'composed')}
${framingRow('largest centred', framing, 'centred')}
${framingRow("sharp's own content-aware cut", framing, 'attention')}

${seeing}
${lettering}
## Proof after a window change
24 megapixels, 1080 × 1350 shown at 448 px: save and proof over HTTP, each window new, ${times.length} changes. The full-size weights
of the same frame are not measured meanwhile.

| median | p95 | aim |
|---|---|---|
| ${median(times).toFixed(0)} ms | **${p95.toFixed(0)} ms** | p95 under 200 ms |

## In the browser, with ${drag.frames} frames on the wall
Headless Chromium at 1280 × 800 without a graphics card (everything is painted by the processor, which also moves the
mouse), 24 megapixels. Dragging an outline, from picture to picture; then ${drag.restToProof.rests} rests, from letting go to the true proof.

| median | p95 | within 1/60 s | aim |
|---|---|---|---|
| ${drag.median.toFixed(1)} ms | **${drag.p95.toFixed(1)} ms** | ${percent(drag.inTime)} | 95 % within 16.7 ms |

| from rest to the true proof, median | p95 | aim |
|---|---|---|
| **${drag.restToProof.median.toFixed(0)} ms** | ${drag.restToProof.p95.toFixed(0)} ms | median under 200 ms |

${vast}
${surviving}
${book}
${large}
${workers}
${many}
${sharing}
${serving}`;
await writeFile(join(import.meta.dirname, 'RESULTS.md'), text);
console.log(text);
