import { type Comparison, compareDelivery } from './inProcess.ts';

const seconds = (value: number) => `${value.toFixed(2)} s`;
const row = (name: string, one: Comparison, aim: string) =>
  `| ${name} | ${seconds(one.ours.wall)} | ${seconds(one.baseline.wall)} | **${one.ratio.wall.toFixed(2)}** | ${seconds(one.ours.cpu)} / ${seconds(one.baseline.cpu)} = **${one.ratio.cpu.toFixed(2)}** | ${aim} | ${one.encodings.toFixed(1)} full, ${one.sketches.toFixed(1)} quick | ${one.encodingShare.wall.toFixed(2)}, ${one.encodingShare.cpu.toFixed(2)} |`;

/** One picture in twelve places, as a section of the results. */
export async function twelveSection(picture: string): Promise<string> {
  const { free, binding } = await compareDelivery(picture);
  return `## One 24-megapixel JPEG into 12 places
Ours: decode once into a working copy, render, find the quality, encode. Baseline: 12 separate one-shot sharp pipelines
(decode, extract, resize, encode) with the same settings, already told the right quality. Two pictures at a time on both sides, the largest first.
Ours also measures what kind of picture each frame is and how similar its file is to the uncompressed picture; the baseline does not.
"Encoding alone" is the part of the baseline's time (by the clock, by the processor) that one encoding a file takes, which
both sides do alike: the least that any way of reading the picture could reach.

| case | ours | baseline | ratio | processor time, ratio | aim | encodings a file | encoding alone |
|---|---|---|---|---|---|---|---|
${row('no limit binds', free, 'at most 0.85')}
${row('every limit binds (60 % of the weight at quality 90)', binding, 'at most 1.45')}
`;
}
