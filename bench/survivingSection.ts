import { type SurvivingFigures, survivingFigures } from './surviving.ts';

const percent = (share: number) => `${(share * 100).toFixed(0)} %`;
const points = (value: number) => `${value >= 0 ? '+' : ''}${value.toFixed(2)}`;

/** What is gained by the way to upload that is learned once per place, as a section of the results. */
export const survivingSection = async (art: string): Promise<string> => survivingText(await survivingFigures(art));

function survivingText(of: SurvivingFigures): string {
  return `## What survives an upload
At every place of the eight networks, ${of.places} that six pictures of the demo and twelve made posters fit, the way to upload was looked for on one
picture, by what the spec book says of the network: ${of.searches.tried} ways tried, ${of.searches.seconds.toFixed(0)} s (medians). Then all ${of.frames} frames were uploaded
like that, and as a new frame is without it, and went through what the network really does. Points are of 100, against the uncompressed frame.

| gained, median | over all widths shown, with worst spots | in full: similarity | in full: worst spot | bytes uploaded |
|---|---|---|---|---|
| all frames | **${points(of.gains.score)}** | ${points(of.gains.fullSimilarity)} | ${points(of.gains.fullWorst)} | ${percent(of.bytes)} of those without |

Shown better: ${percent(of.better)} of the frames; worse: ${percent(of.worse)}. The network scales **${percent(of.rescaled.after)}** of the files, ${percent(of.rescaled.before)} without it. ${of.notTaken} files
were too heavy as learned, and stay as they were.

| network | gained, median | files it scales, without and with |
|---|---|---|
${of.byNetwork.map((one) => `| ${one.network} | ${points(one.gain)} | ${percent(one.rescaledBefore)}, ${percent(one.rescaledAfter)} |`).join('\n')}
`;
}
