import { madePicture } from '@inkwell/demo/make.ts';
import { Program } from './program.ts';
import { trialTimes } from './throughServer.ts';
import { lighterThanDefaults, searchCosts, similarityTime } from './weighing.ts';

const percent = (share: number) => `${(share * 100).toFixed(1)} %`;

/** What is measured of weighing, as a section of the results. */
export async function weighingSection(art: string, picture: string): Promise<string> {
  const searches = await searchCosts(art);
  const similarity = await similarityTime(art);
  const lighter = await lighterThanDefaults(art);
  const program = await Program.start();
  const trial = await trialTimes(program.client, picture, await madePicture('maker', art));
  await program.stop();
  return `## Weighing
Finding the highest quality under a limit against one encoding at the known answer, in the same run: the demo's seven pictures at 1080 × 1350 px
under four limits (30 to 80 % of the weight at the highest quality), each search beginning with nothing known. Two encodings run at a time where the
answer is expected, one for each core. Medians over the searches.

| format | searches | encodings, mean | most | time of a search over one encoding | processor time | aim |
|---|---|---|---|---|---|---|
${searches.map((one) => `| ${one.format} | ${one.searches} | ${one.encodings.mean.toFixed(1)} | ${one.encodings.most} | **${one.ratio.wall.toFixed(2)}** | ${one.ratio.cpu.toFixed(2)} | ${one.format === 'jpeg' || one.format === 'webp' ? 'at most 2.5' : ''} |`).join('\n')}

Similarity of one file of 1080 × 1350 px: **${similarity.toFixed(0)} ms** (aim: under 120).

The lightest JPEG that holds Flick against sharp's default JPEG settings at the lowest quality that is at least as similar (aim: at least 15 % lighter):

| picture | similarity | ours | sharp's default settings | lighter by |
|---|---|---|---|---|
${lighter.map((one) => `| ${one.picture} | ${one.similarity.toFixed(1)} | ${(one.ours / 1000).toFixed(0)} kB | ${(one.theirs / 1000).toFixed(0)} kB | **${percent(1 - one.ours / one.theirs)}** |`).join('\n')}

Dragging the quality of a JPEG of 1080 × 1350 px by hand, until its true bytes are there, over HTTP: the first, beside the file's own quality, **${trial.first.toFixed(0)} ms** (aim: at most 300) once
the weight view has opened, which takes ${trial.opened.toFixed(0)} ms for its uncompressed picture; a quality that was not tried before ${trial.fresh.toFixed(0)} ms; one that was
(the weight view tries them all as soon as it opens) **${trial.again.toFixed(0)} ms** (aim: under 150 after the first). The first without the view, right after the frame was
made, while a worker looks at its picture: ${trial.atOnce.toFixed(0)} ms.
`;
}
