import { lookFigures } from './looking.ts';
import { proposedOfNothing, tiltFigures, wordFigures } from './made.ts';
import { comparePosters, compareUnmarked } from './unmarked.ts';

const percent = (share: number) => `${(share * 100).toFixed(1)} %`;

/** What is seen in pictures, and what that takes, as a section of the results. @param folder for what is made and fetched */
export async function seeingSection(picture: string, folder: string): Promise<string> {
  const look = await lookFigures(picture, folder);
  const unmarked = await compareUnmarked(folder);
  const posters = await comparePosters();
  const words = await wordFigures();
  const tilt = tiltFigures();
  const nothing = await proposedOfNothing();
  const kept = (way: keyof typeof unmarked.kept) => percent(unmarked.kept[way] / unmarked.possible);
  return `## Seeing
A picture of 24 megapixels, once its working copy is there and the weights are loaded: **${look.processor.toFixed(2)} s** of one core (aim: at most 1.5),
${(look.processor / look.opening).toFixed(1)} times what libvips takes in the same run to decode it (${look.opening.toFixed(2)} s);
the worker holds **${look.megabytes.toFixed(0)} MB** at most (aim: 600). Listing the projects meanwhile, p95: ${look.looking.toFixed(0)} ms against ${look.quiet.toFixed(0)} ms at rest, **${(look.looking / look.quiet).toFixed(2)}** times (aim: at most 1.5).

Eight pictures without a mark, with people, cats, cups and motorcycles pasted into them from photographs that Debian ships, at all places: ${unmarked.frames} frames,
in ${unmarked.possible} of which a window of a fine grid keeps all subjects.

| window | all kept, of those where it is possible | area of the subjects shown |
|---|---|---|
| composed from what is seen | **${kept('composed')}** (aim: 90) | ${percent(unmarked.keepShown.composed)} |
| largest centred | ${kept('centred')} | ${percent(unmarked.keepShown.centred)} |
| sharp's own content-aware cut | ${kept('attention')} | ${percent(unmarked.keepShown.attention)} |

| what | measured | aim |
|---|---|---|
| frames of made posters, composed from what is seen, with all lines whole, of ${posters.possible} in which that is possible | **${percent(posters.kept.composed / posters.possible)}** | all |
| the same, largest centred | ${percent(posters.kept.centred / posters.possible)} | |
| lines of words found, of ${words.lines} on ${words.posters} made posters: eight fonts, five grounds, turned up to 5° | **${percent(words.found / words.lines)}** | 95 % |
| regions that are no words, a poster | **${(words.wrong / words.posters).toFixed(2)}** | at most 0.1 |
| tilt of ${tilt.pictures} made horizons and fronts, -8° to 8°: median error | **${tilt.median.toFixed(3)}°** | 0.2° |
| the same: 95 % of those that are said | **${tilt.p95.toFixed(3)}°** | 0.7° |
| the same: said | **${percent(tilt.said / tilt.pictures)}** | 80 % |
| tilt said of ${tilt.others} textures: sand, grain, circles, leaves, clouds, bricks | **${tilt.saidOfOthers}** | none of circles, leaves and sand |
| proposals in ${nothing.pictures} such textures | **${nothing.proposals}** | at most ${(nothing.pictures / 20).toFixed(1)} |
`;
}
