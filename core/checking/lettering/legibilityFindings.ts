import { contrastNeeded, type Lettered, outlineRound, plateUnder } from '../../lettering/index.ts';
import type { Finding, Legibility, WordsItem } from '../../model/index.ts';
import type { FrameToCheck } from '../frameToCheck.ts';
import { firstThatHelps, leaveOut, type Way } from './letteringFixes.ts';

/** Ground that is more uneven than this hides letters in its own pattern. Found by eye on titles over leaves, sand and crowds. */
const busiest = 0.4;

/** The words of a frame that cannot be told well from what lies round them, where they are shown. */
export function legibilityFindings({
  lettered,
  legibility,
  place,
  settings,
}: Pick<FrameToCheck, 'lettered' | 'legibility' | 'place' | 'settings'>): Finding[] {
  if (!lettered || !legibility) return [];
  return lettered.written.flatMap((item): Finding[] => {
    const stood = lettered.items.find(({ itemId }) => itemId === item.id);
    if (item.kind !== 'words' || !stood) return [];
    const doubtful = legibility
      .filter(({ itemId, shownWidth }) => itemId === item.id && place.shownWidths.includes(shownWidth))
      .map((one) => ({ ...one, least: contrastNeeded((stood.em * one.shownWidth) / place.width, item.style.weight) }))
      .filter(({ contrast, busy, least }) => contrast < least || busy > busiest)
      .sort((a, b) => a.contrast / a.least - b.contrast / b.least);
    const [worst] = doubtful;
    if (!worst) return [];
    const ways = waysToSetOff(item, lettered);
    const fix = firstThatHelps(lettered, settings.hands, { item }, ways) ?? leaveOut(settings.hands, item);
    return [{ kind: 'hard to read', level: 'caution', ...told(item, worst), fix }];
  });
}

function told({ name }: WordsItem, { shownWidth, contrast, busy, least }: Legibility & { least: number }) {
  const where = `Shown ${shownWidth} px wide,`;
  if (contrast < least) {
    const measured = `${contrast.toFixed(1)} : 1`;
    return {
      text: `${where} ${name} has a contrast of ${measured} to the worst tenth of what lies round its letters; words of its size need ${least} : 1.`,
      measured,
      allowed: `${least} : 1`,
    };
  }
  return {
    text: `${where} the picture right round ${name} is so uneven that its letters get lost in it.`,
    measured: Number(busy.toFixed(2)),
    allowed: busiest,
  };
}

/** What makes sure that letters stand out, by the colour that they have in this frame. */
function waysToSetOff({ id, style }: WordsItem, { items, layers }: Lettered): Way[] {
  const letters = items.find(({ itemId }) => itemId === id)?.letters ?? null;
  const layer = letters === null ? undefined : layers[letters];
  const colour = layer?.kind === 'outline' ? layer.colour : style.colour;
  return [
    { label: 'Put a plate under it', hand: { setOff: plateUnder(colour) } },
    { label: 'Outline it', hand: { setOff: outlineRound(colour) } },
  ];
}
