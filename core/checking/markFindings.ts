import {
  type ContentArea,
  contentAreaOf,
  coveredRects,
  frameWindow,
  markInFrame,
  type Unmet,
  unmetMarks,
} from '../framing/index.ts';
import { boundsOf, marksOnPicture, nudge, type Point, pictureBox, type Rect, zoomAbout } from '../geometry/index.ts';
import { type Finding, type FrameChange, isMust, type Mark, type MarkToCompose, type Window } from '../model/index.ts';
import { type FrameToCheck, withBorder } from './frameToCheck.ts';
import { proposalWords } from './proposalWords.ts';

const markKinds = {
  cut: 'mark cut',
  covered: 'mark covered',
  'not always shown': 'mark not always shown',
  shown: 'avoided mark shown',
} as const;

interface Way {
  label: string;
  change: FrameChange;
}

/** Marks that a frame does not honour, each with the gentlest change that honours it and costs no other mark. */
export function markFindings(frame: FrameToCheck, window: Window, contentArea: ContentArea): Finding[] {
  const { original, place, wordsRoom = 0 } = frame;
  const telling = marksOnPicture(original.marks, pictureBox(original)).filter(isTold);
  const unmet = unmetMarks(window, contentArea, telling);
  const unmetAfter = (change: FrameChange) => {
    const changed = withBorder(frame, change);
    return unmetMarks(
      frameWindow(original, place, changed, wordsRoom),
      contentAreaOf(place, original, changed),
      telling,
    );
  };
  const helps = (change: FrameChange, one: Unmet) => {
    const left = unmetAfter(change);
    return left.length < unmet.length && left.every((other) => other.markId !== one.markId);
  };
  const found = unmet.map((one): Finding => {
    const mark = telling.find((each) => each.id === one.markId);
    const ways = mark ? waysFor(frame, window, contentArea, mark, one) : [];
    const fix = ways.find((way) => helps(way.change, one));
    return {
      kind: markKinds[one.kind],
      level: 'caution',
      text: mark?.proposed ? proposalWords(mark.name, one.kind) : one.text,
      measured: one.kind === 'cut' ? one.pixels : one.kind,
      allowed: one.kind === 'cut' ? 0 : one.kind === 'shown' ? 'out' : 'open',
      ...(fix ? { fix } : {}),
    };
  });
  // Two lines of words that may be cut are one thing to look at.
  return found.filter(({ text }, at) => found.findIndex((other) => other.text === text) === at);
}

/** What should be in but is not a must may go for the sake of the rest: that is what it is marked for. What was seen is told where it is sure. */
const isTold = (mark: MarkToCompose) =>
  mark.proposed ? mark.proposed === 'sure' : mark.role === 'avoid' || isMust(mark);

/** The window is loosened in steps of this, up to so many. */
const loosening = 1.06;
const looseningSteps = 16;

/**
 * What could be done about a mark, in the order in which it is tried. What the network covers is uncovered by a shift;
 * a mark that is cut asks for another composition, or for more of the picture.
 */
function waysFor(
  { original, settings }: FrameToCheck,
  window: Window,
  contentArea: ContentArea,
  mark: Mark,
  unmet: Unmet,
) {
  const { ring } = settings;
  const byRing: Way[] =
    ring?.side === 'inside' ? [{ label: 'Lay the ring outside', change: { ring: { ...ring, side: 'outside' } } }] : [];
  const onEcho: Way = { label: 'Show all of it on an echo', change: { composed: true, backing: { kind: 'echo' } } };
  if (settings.composed) return [...byRing, onEcho];
  const bounds = boundsOf(original, settings.backing);
  const byHand = (label: string, next: Window): Way => ({ label, change: { composed: false, window: next } });
  const composing: Way = { label: 'Compose again', change: { composed: true } };
  const shifts = shiftsFor(mark, window, contentArea, unmet).map((by) =>
    byHand('Shift it', nudge(window, by, bounds, contentArea.dimensions)),
  );
  const centre = { x: window.centreX, y: window.centreY };
  const looser = Array.from({ length: unmet.kind === 'shown' ? 0 : looseningSteps }, (_, step) =>
    byHand('Loosen it', zoomAbout(window, loosening ** (step + 1), centre, bounds, contentArea.dimensions)),
  );
  const cut = unmet.kind === 'cut';
  return cut ? [...byRing, composing, ...looser, ...shifts, onEcho] : [...shifts, composing, ...looser, onEcho];
}

/** Moves of the window, in pixels of the content area, that bring a mark to where it should be; the shortest first. */
function shiftsFor(mark: Mark, window: Window, contentArea: ContentArea, { kind }: Unmet): Point[] {
  const { width, height } = contentArea.dimensions;
  const rect = markInFrame(mark, window, contentArea.dimensions);
  const right = rect.left + rect.width;
  const bottom = rect.top + rect.height;
  const beside = (area: Rect): Point[] => [
    { x: right - area.left, y: 0 },
    { x: rect.left - area.left - area.width, y: 0 },
    { x: 0, y: bottom - area.top },
    { x: 0, y: rect.top - area.top - area.height },
  ];
  const within = (area: Rect): Point => ({
    x: Math.min(0, rect.left - area.left) + Math.max(0, right - area.left - area.width),
    y: Math.min(0, rect.top - area.top) + Math.max(0, bottom - area.top - area.height),
  });
  const frame = { left: 0, top: 0, width, height };
  const shifts = {
    cut: () => [within(frame)],
    'not always shown': () => (contentArea.shownPart ? [within(contentArea.shownPart)] : []),
    covered: () => coveredRects(contentArea, contentArea.dimensions).flatMap(beside),
    shown: () => beside(frame),
  }[kind]();
  return shifts.sort((a, b) => Math.hypot(a.x, a.y) - Math.hypot(b.x, b.y));
}
