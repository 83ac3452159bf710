import type { MovedProblem } from '../lettering/index.ts';
import { type Finding, type Hands, withHand } from '../model/index.ts';
import type { FrameToCheck } from './frameToCheck.ts';

/** The numbers of what one sees as one character: where no font has it, it cannot be shown. */
const codesOf = (character: string): string =>
  [...character].map((one) => `U+${one.codePointAt(0)?.toString(16).toUpperCase().padStart(4, '0')}`).join(' ');

/** What is wrong with the words of a frame: characters that no font has, and items for which there is no room. */
export function letteringFindings({ lettered, settings }: Pick<FrameToCheck, 'lettered' | 'settings'>): Finding[] {
  if (!lettered) return [];
  const missing = lettered.missing.map(({ item, characters }): Finding => {
    const named = characters.map((one) => `${one} (${codesOf(one)})`).join(', ');
    return {
      kind: 'letters missing',
      level: 'blocker',
      text: `No font has ${named}, which ${item.name} is written with. Write it without, or with other characters.`,
      measured: named,
      allowed: '',
    };
  });
  const lost = lettered.lost.map(
    ({ item, reason }): Finding => ({
      kind: 'words left out',
      level: 'caution',
      text: `${reason} It is left out. ${item.kind === 'words' ? 'Give it a short version, or make it shorter.' : 'Make it smaller, or leave it out on this place.'}`,
      measured: item.name,
      allowed: '',
    }),
  );
  const moved = lettered.moved.map((problem) => movedFinding(problem, settings.hands));
  return [...missing, ...moved, ...lost];
}

function movedFinding({ item, kind, times }: MovedProblem, hands: Hands): Finding {
  const stand = hands[item.id]?.stand;
  const larger = stand && { ...stand, size: stand.size * times };
  const again = { label: 'Lay it out again', change: { hands: withHand(hands, item.id, { stand: null }) } };
  const words = {
    covers: `${item.name} covers a mark, or lies where the network covers or cuts the picture.`,
    'near the edge': `${item.name} is closer to the edge than the margin.`,
    small: `${item.name} is too small to be read where this place is shown smallest.`,
  };
  return {
    kind: 'words misplaced',
    level: 'caution',
    text: words[kind],
    measured: kind === 'small' ? Number((1 / times).toFixed(2)) : kind,
    allowed: kind === 'small' ? 1 : '',
    fix:
      kind === 'small' && larger
        ? { label: 'Enlarge it', change: { hands: withHand(hands, item.id, { stand: larger }) } }
        : again,
  };
}
