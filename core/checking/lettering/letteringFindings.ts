import { intersection, type Rect } from '../../geometry/index.ts';
import { type Lettered, type MovedProblem, standOf } from '../../lettering/index.ts';
import { type Finding, type Hands, type LetteredItem, withHand } from '../../model/index.ts';
import type { LetteredFrame } from '../../planning/index.ts';
import type { FrameToCheck } from '../frameToCheck.ts';
import { firstThatHelps, leaveOut, shortVersion, type Way } from './letteringFixes.ts';

/** The numbers of what one sees as one character: where no font has it, it cannot be shown. */
const codesOf = (character: string): string =>
  [...character].map((one) => `U+${one.codePointAt(0)?.toString(16).toUpperCase().padStart(4, '0')}`).join(' ');

/** What is wrong or doubtful about what is laid over a frame, as far as it can be known without its pixels. */
export function letteringFindings({ lettered, settings }: Pick<FrameToCheck, 'lettered' | 'settings'>): Finding[] {
  if (!lettered) return [];
  const { hands } = settings;
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
      fix: leaveOut(hands, item),
    }),
  );
  const moved = lettered.moved.map((problem) => movedFinding(problem, lettered, hands));
  return [...missing, ...moved, ...lost, ...muchFinding(lettered, hands)];
}

function movedFinding(problem: MovedProblem, lettered: LetteredFrame, hands: Hands): Finding {
  const { item, kind, times } = problem;
  const words = {
    covers: `${item.name} covers a mark, or lies where the network covers or cuts the picture.`,
    'on a seam': `A seam cuts letters of ${item.name}.`,
    'near the edge': `${item.name} is closer to an edge or a seam than the margin.`,
    small: `${item.name} is too small to be read where this place is shown smallest.`,
  };
  return {
    kind: 'words misplaced',
    level: 'caution',
    text: words[kind],
    measured: kind === 'small' ? Number((1 / times).toFixed(2)) : kind,
    allowed: kind === 'small' ? 1 : '',
    fix: firstThatHelps(lettered, hands, problem, waysToMove(problem, lettered, hands)) ?? leaveOut(hands, item),
  };
}

const layItOutAgain: Way = { label: 'Lay it out again', hand: { stand: null } };

/** What could be done about where a hand has put an item, what changes least first. */
function waysToMove({ item, kind, times, free }: MovedProblem, lettered: Lettered, hands: Hands): Way[] {
  const stand = hands[item.id]?.stand;
  if (!stand) return [layItOutAgain];
  const isSmall = kind === 'small';
  const asLarge = { ...stand, size: stand.size * (isSmall ? times : 1) };
  const enlarge: Way[] = isSmall ? [{ label: 'Enlarge it', hand: { stand: asLarge } }] : [];
  const moved = free.map((one): Way => {
    const label = one.lines !== stand.lines ? 'Break it otherwise' : isSmall ? 'Enlarge it' : 'Move it out';
    return { label, hand: { stand: one } };
  });
  return [...enlarge, ...moved, ...shortVersion(item, lettered, { stand: asLarge }), layItOutAgain];
}

/** More than this share of a piece under words, and there is hardly a picture left. */
const mostUnderWords = 0.4;
/** The largest words are proposed this much smaller, the first of these that is enough. */
const smaller = [0.85, 0.7, 0.55, 0.4] as const;

const areaOf = ({ width, height }: Rect) => width * height;

/** The share of the piece with the most words that these take. */
function underWords(items: readonly LetteredItem[]): number {
  const words = items.filter(({ text }) => text !== '');
  const taken = (piece: Rect) => words.reduce((sum, { box }) => sum + areaOf(intersection(box, piece)), 0);
  return Math.max(0, ...words.map(({ piece }) => taken(piece) / areaOf(piece)));
}

/** Words that take more of a picture than they should. */
function muchFinding(lettered: LetteredFrame, hands: Hands): Finding[] {
  const share = underWords(lettered.items);
  if (share <= mostUnderWords) return [];
  const words = lettered.items.filter(({ text }) => text !== '');
  const [largest] = words.sort((a, b) => areaOf(b.box) - areaOf(a.box));
  const item = lettered.written.find(({ id }) => id === largest?.itemId);
  if (!item || !largest) return [];
  const stand = standOf(largest);
  const ways = [
    ...shortVersion(item, lettered),
    ...smaller.map((by): Way => ({ label: 'Make it smaller', hand: { stand: { ...stand, size: stand.size * by } } })),
    layItOutAgain,
  ].filter(({ hand }) => underWords(lettered.again(withHand(hands, item.id, hand)).items) <= mostUnderWords);
  return [
    {
      kind: 'much under words',
      level: 'caution',
      text: `Words lie over ${Math.round(share * 100)} % of the picture: little of it is left to be seen.`,
      measured: `${Math.round(share * 100)} %`,
      allowed: `${mostUnderWords * 100} %`,
      fix: firstThatHelps(lettered, hands, { item }, ways) ?? leaveOut(hands, item),
    },
  ];
}

/** Kinds of findings that what is written can bring about by itself. */
const kindsOfWords: ReadonlySet<Finding['kind']> = new Set(['words left out', 'letters missing', 'much under words']);

/** Whether a finding is about what is written, whatever hands have done to it. */
export const isAboutWords = ({ kind }: Finding): boolean => kindsOfWords.has(kind);

/** What is wrong or doubtful about what is written on a frame. */
export const wordFindings = (frame: Pick<FrameToCheck, 'lettered' | 'settings'>): Finding[] =>
  letteringFindings(frame).filter(isAboutWords);
