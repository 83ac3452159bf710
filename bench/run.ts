import { writeFile } from 'node:fs/promises';
import { cpus, tmpdir, totalmem } from 'node:os';
import { join } from 'node:path';
import { madePicture } from '@inkwell/demo/make.ts';
import { bookSection } from './book.ts';
import { compareSharpness, type FinishCost, finishCost, plotData } from './finishing.ts';
import { compareFraming, composeTimes, type FramingComparison } from './framing.ts';
import { dragging } from './inBrowser.ts';
import { type Comparison, compareDelivery, median } from './inProcess.ts';
import { largeSection } from './large.ts';
import { letteringSection } from './lettering.ts';
import { Program } from './program.ts';
import { seeingSection } from './seeing/seeingSection.ts';
import { serviceSection } from './serviceSection.ts';
import { compareStrip } from './strips.ts';
import { survivingSection } from './survivingSection.ts';
import { proofTimes } from './throughServer.ts';
import { vastSection } from './vast.ts';
import { weighingSection } from './weighingSection.ts';
import { workersSection } from './workers.ts';

const art = process.env.INKWELL_ART ?? join(tmpdir(), 'inkwell-art');
const picture = await madePicture('flyers', art);

console.log('Twelve places from one picture …');
const { free, binding } = await compareDelivery(picture);
console.log('Ten panels from one panorama …');
const strip = await compareStrip(await madePicture('panorama', art));
console.log('Finishing …');
const finishing = await finishCost(picture);
const sharpness = await compareSharpness(art);
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
console.log('Serving …');
const serving = await serviceSection(picture);

const seconds = (value: number) => `${value.toFixed(2)} s`;
const row = (name: string, one: Comparison, aim: string) =>
  `| ${name} | ${seconds(one.ours.wall)} | ${seconds(one.baseline.wall)} | **${one.ratio.wall.toFixed(2)}** | ${seconds(one.ours.cpu)} / ${seconds(one.baseline.cpu)} = **${one.ratio.cpu.toFixed(2)}** | ${aim} | ${one.encodings.toFixed(1)} full, ${one.sketches.toFixed(1)} quick | ${one.encodingShare.wall.toFixed(2)}, ${one.encodingShare.cpu.toFixed(2)} |`;
const percent = (share: number) => `${(share * 100).toFixed(1)} %`;
const framingRow = (name: string, one: FramingComparison, way: keyof FramingComparison['kept']) =>
  `| ${name} | **${percent(one.kept[way] / one.possible)}** | ${percent(one.keepShown[way])} | ${percent(one.avoidShown[way])} |`;
const finishRow = (name: string, one: FinishCost) =>
  `| ${name} | ${seconds(one.finished.wall)} | ${seconds(one.plain.wall)} | **${one.ratio.wall.toFixed(2)}** | ${one.ratio.cpu.toFixed(2)} |`;
const p95 = times[Math.floor(times.length * 0.95)] ?? Number.NaN;
const text = `# Measured

With \`npm run bench\` on ${new Date().toISOString().slice(0, 10)}, on ${cpus().length} cores of ${cpus()[0]?.model.trim()}, ${Math.round(totalmem() / 1e9)} GB, Node.js ${process.version}.
Medians of seven rounds in which the two sides took turns; ratios are medians of the rounds' ratios.

## One 24-megapixel JPEG into 12 places
Ours: decode once into a working copy, render, find the quality, encode. Baseline: 12 separate one-shot sharp pipelines
(decode, extract, resize, encode) with the same settings, already told the right quality. Two pictures at a time on both sides, the largest first.
Ours also measures what kind of picture each frame is and how similar its file is to the uncompressed picture; the baseline does not.
"Encoding alone" is the part of the baseline's time (by the clock, by the processor) that one encoding a file takes, which
both sides do alike: the least that any way of reading the picture could reach.

| case | ours | baseline | ratio | processor time, ratio | aim | encodings a file | encoding alone |
|---|---|---|---|---|---|---|---|
${row('no limit binds', free, 'at most 0.65')}
${row('every limit binds (60 % of the weight at quality 90)', binding, 'at most 1.3')}

## Ten panels from one panorama
36 megapixels into 10 portrait panels of 1080 × 1350 px, where no limit binds: one working copy, rendered as a whole, cut, encoded, and the step at
every seam and the similarity of every file measured; against ten separate sharp pipelines at the same qualities, two at a time on both sides.

| ours | baseline | ratio | processor time, ratio | aim | encoding alone | largest step that cutting added at a seam |
|---|---|---|---|---|---|---|
| ${seconds(strip.ours.wall)} | ${seconds(strip.baseline.wall)} | **${strip.ratio.wall.toFixed(2)}** | ${seconds(strip.ours.cpu)} / ${seconds(strip.baseline.cpu)} = **${strip.ratio.cpu.toFixed(2)}** | at most 0.6 | ${strip.encodingShare.wall.toFixed(2)}, ${strip.encodingShare.cpu.toFixed(2)} | ${strip.worstSeam.toFixed(1)} of 255 levels |

## Finishing
One frame of 1080 × 1350 px from 24 megapixels, finished with Crisp against the same left plain, both encoded at quality 90 or what fits.

| from | finished | plain | ratio (aim: at most 1.6) | processor time, ratio |
|---|---|---|---|---|
${finishRow('the file of the original, as on its first day', finishing.fromFile)}
${finishRow('its working copy, as ever after', finishing.fromCopy)}

Acutance (energy of edges, levels a pixel) at equal halo (mean overshoot at edges): Crisp against a plain resize followed by sharp's own
\`sharpen()\` of the same radius, as strong as gives the same halo. Aim: higher at every picture. Both at several strengths: [sharpness.csv](sharpness.csv).

| picture | plain | sharp's own | ours | halo, sharp's and ours |
|---|---|---|---|---|
${sharpness.map((one) => `| ${one.picture} | ${one.plain.toFixed(2)} | ${one.theirs.toFixed(2)} | **${one.ours.toFixed(2)}** | ${percent(one.theirHalo)}, ${percent(one.halo)} |`).join('\n')}

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
${serving}`;
await writeFile(join(import.meta.dirname, 'RESULTS.md'), text);
await writeFile(join(import.meta.dirname, 'sharpness.csv'), plotData(sharpness));
console.log(text);
