import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { compareSharpness, type FinishCost, finishCost, plotData } from './finishing.ts';

const seconds = (value: number) => `${value.toFixed(2)} s`;
const percent = (share: number) => `${(share * 100).toFixed(1)} %`;
const finishRow = (name: string, one: FinishCost) =>
  `| ${name} | ${seconds(one.finished.wall)} | ${seconds(one.plain.wall)} | **${one.ratio.wall.toFixed(2)}** | ${one.ratio.cpu.toFixed(2)} |`;

/** What finishing costs and gains, as a section of the results. */
export async function finishingSection(picture: string, art: string): Promise<string> {
  const finishing = await finishCost(picture);
  const sharpness = await compareSharpness(art);
  await writeFile(join(import.meta.dirname, 'sharpness.csv'), plotData(sharpness));
  return `## Finishing
One frame of 1080 × 1350 px from 24 megapixels, finished with Crisp against the same left plain, both encoded at quality 90 or what fits.

| from | finished | plain | ratio (aim: at most 1.5) | processor time, ratio |
|---|---|---|---|---|
${finishRow('the file of the original, as on its first day', finishing.fromFile)}
${finishRow('its working copy, as ever after', finishing.fromCopy)}

Acutance (energy of edges, levels a pixel) at equal halo (mean overshoot at edges): Crisp against a plain resize followed by sharp's own
\`sharpen()\` of the same radius, as strong as gives the same halo. Aim: higher at every picture. Both at several strengths: [sharpness.csv](sharpness.csv).

| picture | plain | sharp's own | ours | halo, sharp's and ours |
|---|---|---|---|---|
${sharpness.map((one) => `| ${one.picture} | ${one.plain.toFixed(2)} | ${one.theirs.toFixed(2)} | **${one.ours.toFixed(2)}** | ${percent(one.theirHalo)}, ${percent(one.halo)} |`).join('\n')}
`;
}
