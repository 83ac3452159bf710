import { type GainFigures, survivingFigures } from './surviving.ts';

const percent = (share: number) => `${(share * 100).toFixed(0)} %`;
const points = (value: number) => `${value >= 0 ? '+' : ''}${value.toFixed(1)}`;
const row = ({ network, median, most, better, worse, rescaled }: GainFigures) =>
  `| ${network ?? '**all**'} | ${network ? points(median) : `**${points(median)}**`} | ${points(most)} | ${percent(better)} | ${percent(worse)} | ${percent(rescaled.before)}, ${percent(rescaled.after)} |`;

/** What is gained by the best upload that is learned once per place, as a section of the results. It takes an hour. */
export async function survivingSection(art: string): Promise<string> {
  const { places, frames, notTaken, gains } = await survivingFigures(art);
  return `## What survives an upload
At every place of the eight networks, ${places} of them, the best upload was looked for on one picture, by what the spec book says of the network. Then all six
pictures of the demo and twelve made posters were uploaded like that, and as a new frame is without it, and went through what the network really
does: ${frames} frames. Points are of 100, against the uncompressed frame: similarity and worst spot alike, mean of all widths shown and in full.

| network | gained, median | most | shown better | worse | files it scales, without and with |
|---|---|---|---|---|---|
${gains.map(row).join('\n')}

The mean gain is ${gains[0]?.mean.toFixed(2)}. ${notTaken} files were too heavy as learned, and stayed as they were.
`;
}
