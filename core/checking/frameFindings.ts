import { contentAreaOf, frameWindow, settledPlace } from '../framing/index.ts';
import {
  area,
  boundsOf,
  clampWindow,
  enlargement,
  frameDimensions,
  intersection,
  type Rect,
} from '../geometry/index.ts';
import {
  type Area,
  carriesTransparency,
  type Dimensions,
  type Finding,
  formatLabel,
  formatLimit,
  formatWeight,
  limitFor,
  type Place,
  type Window,
} from '../model/index.ts';
import { flattenColour, isCutOut } from '../planning/index.ts';
import { notTaken } from '../splitting/index.ts';
import { budgetBytes } from '../weighing/index.ts';
import { detailFindings } from './files/detailFindings.ts';
import { finishFindings } from './files/finishFindings.ts';
import { similarityFindings } from './files/similarityFindings.ts';
import { type FrameToCheck, withBorder } from './frameToCheck.ts';
import { legibilityFindings } from './lettering/legibilityFindings.ts';
import { letteringFindings } from './lettering/letteringFindings.ts';
import { markFindings } from './markFindings.ts';
import { carriedFinding, wishFindings } from './placeFindings.ts';
import { stretchWords } from './stretchWords.ts';
import { stripFindings } from './strips/stripFindings.ts';
import { tiltFinding } from './tiltFinding.ts';

/** Up to so many times nobody sees it: it stands among the numbers of the frame, and is no finding. */
const unseenEnlargement = 1.1;
/** Enlargement from which the caution becomes a strong one. */
const strongEnlargement = 1.5;
/** Beyond this nothing of the picture is left to be seen but its pixels. */
const mostEnlargement = 8;
/**
 * Everything that is wrong or doubtful about one frame: blockers first, then cautions.
 *
 * @param known what the frame shows, where that was worked out already
 */
export function frameFindings(given: FrameToCheck, known?: Window): Finding[] {
  const frame = { ...given, place: settledPlace(given.place, given.original, given.settings) };
  const window = known ?? frameWindow(frame.original, frame.place, withBorder(frame), frame.wordsRoom ?? 0);
  const output = frameDimensions(frame.place, frame.original, frame.settings);
  const contentArea = contentAreaOf(frame.place, frame.original, withBorder(frame));
  const found = [
    notTakenFinding(frame),
    formatFinding(frame),
    weightFinding(frame),
    ...wishFindings(frame),
    carriedFinding(frame, output),
    ...similarityFindings(frame),
    ...letteringFindings(frame),
    ...legibilityFindings(frame),
    ...markFindings(frame, window, contentArea),
    ...stripFindings(frame, window),
    tiltFinding(frame),
    stretchFinding(frame),
    ...detailFindings(frame, window, contentArea),
    enlargedFinding(frame, window, contentArea.dimensions),
    ...finishFindings(frame, output),
    transparencyFinding(frame),
    ...(frame.settings.grid ? [] : [coveredFinding(frame.place, output), hiddenFinding(frame.place, output)]),
  ].filter((finding) => finding !== null);
  return [...found.filter((one) => one.level === 'blocker'), ...found.filter((one) => one.level === 'caution')];
}

function notTakenFinding({ place, original, settings }: FrameToCheck): Finding | null {
  const text = notTaken(place, original, settings);
  if (text === null) return null;
  const isAboutDimensions =
    settings.dimensions !== null && notTaken(place, original, { ...settings, dimensions: null }) === null;
  const fix = { label: 'Use dimensions that it takes', change: { dimensions: null } };
  return {
    kind: 'not taken',
    level: 'blocker',
    text,
    measured: '',
    allowed: '',
    ...(isAboutDimensions ? { fix } : {}),
  };
}

function formatFinding({ place, settings }: FrameToCheck): Finding | null {
  if (place.formats.includes(settings.format)) return null;
  const taken = place.formats.map((format) => formatLabel[format]).join(', ');
  const other = place.formats.includes('jpeg') ? 'jpeg' : (place.formats[0] ?? null);
  return {
    kind: 'format',
    level: 'blocker',
    text: `${place.name} does not take ${formatLabel[settings.format]}. It takes ${taken}.`,
    measured: formatLabel[settings.format],
    allowed: taken,
    ...(other ? { fix: { label: `Deliver as ${formatLabel[other]}`, change: { format: other } } } : {}),
  };
}

function weightFinding({ place, settings, weight }: FrameToCheck): Finding | null {
  if (!weight || weight.fits) return null;
  const own = limitFor(place, settings.format);
  const { postLimit } = place;
  const all = weight.files.reduce((sum, { bytes }) => sum + bytes, 0);
  if (postLimit && weight.bytes <= own.bytes && all > budgetBytes(postLimit)) {
    const [measured, allowed] = [formatWeight(all, postLimit.unit), formatLimit(postLimit)];
    const files = weight.files.length === 1 ? 'this file weighs' : `the ${weight.files.length} files weigh`;
    const text = `At their lightest ${files} ${measured}; a post at ${place.name} takes ${allowed} in all, less headroom.`;
    return { kind: 'too heavy', level: 'blocker', text, measured, allowed };
  }
  const allowed = formatLimit(own);
  const measured = formatWeight(weight.bytes, own.unit);
  const lighter = settings.format === 'png' && place.formats.includes('jpeg');
  return {
    kind: 'too heavy',
    level: 'blocker',
    text: `At its lightest this file weighs ${measured}; ${place.name} takes ${allowed} less headroom.`,
    measured,
    allowed,
    ...(lighter ? { fix: { label: 'Deliver as JPEG', change: { format: 'jpeg' } } } : {}),
  };
}

function enlargedFinding({ original, settings }: FrameToCheck, window: Window, output: Dimensions): Finding | null {
  // Where the picture is drawn narrower than it is, it is enlarged more upwards than sideways.
  const upright = Math.max(1, 1 / settings.stretch);
  const times = enlargement(window, output) * upright;
  if (times <= unseenEnlargement) return null;
  const loosened = clampWindow(
    { ...window, span: output.width * upright },
    boundsOf(original, settings.backing),
    output,
  );
  const reaches = enlargement(loosened, output) * upright;
  const label = reaches <= 1.0005 ? 'Loosen to 1×' : `Loosen to ${reaches.toFixed(2)}×`;
  const strong = times > strongEnlargement;
  const tooFar = times > mostEnlargement;
  return {
    kind: 'enlarged',
    level: tooFar ? 'blocker' : 'caution',
    text: tooFar
      ? `Enlarged ${times.toFixed(1)} times: at most ${mostEnlargement} times is delivered. Loosen the frame, or choose a smaller place or a larger picture.`
      : strong
        ? `Enlarged ${times.toFixed(2)} times: it will look soft. Loosen the frame or choose a smaller place.`
        : `Enlarged ${times.toFixed(2)} times: the frame asks for more pixels than the original has here.`,
    measured: Number(times.toFixed(3)),
    allowed: tooFar ? mostEnlargement : 1,
    ...(reaches < times - 0.005 ? { fix: { label, change: { composed: false, window: loosened } } } : {}),
  };
}

function transparencyFinding({ original, place, settings }: FrameToCheck): Finding | null {
  const cutOut = isCutOut(place, settings);
  const transparent = original.hasAlpha || settings.backing?.kind === 'transparent' || cutOut;
  if (!transparent || settings.flatten || carriesTransparency(settings.format)) return null;
  const clear = place.formats.find(carriesTransparency);
  const white = { label: `Put ${flattenColour} under it`, change: { flatten: flattenColour } };
  const { shape } = place;
  return {
    kind: 'transparency',
    level: cutOut ? 'blocker' : 'caution',
    text: cutOut
      ? `JPEG has no transparency, and this ${shape === 'circle' ? 'circle' : 'frame'} is to be cut out. ${clear ? `Deliver it as ${formatLabel[clear]}, or choose` : 'Choose'} the colour that comes under it.`
      : `JPEG has no transparency: transparent parts become white (${flattenColour}) unless you choose another colour.`,
    measured: 'JPEG',
    allowed: place.formats
      .filter(carriesTransparency)
      .map((format) => formatLabel[format])
      .join(', '),
    fix: clear ? { label: `Deliver as ${formatLabel[clear]}`, change: { format: clear } } : white,
  };
}

function stretchFinding({ settings: { stretch } }: FrameToCheck): Finding | null {
  if (stretch === 1) return null;
  return {
    kind: 'stretched',
    level: 'caution',
    text: `Stretched: the picture is drawn ${stretchWords(stretch)} than it is.`,
    measured: Number(stretch.toFixed(3)),
    allowed: 1,
    fix: { label: 'Undo the stretch', change: { stretch: 1 } },
  };
}

/** The middle of a frame, where most people put what matters: two thirds of each side. */
function middle(output: Dimensions): Rect {
  return {
    left: output.width / 6,
    top: output.height / 6,
    width: (output.width * 2) / 3,
    height: (output.height * 2) / 3,
  };
}

const percent = (share: number) => `${Math.max(1, Math.round(share * 100))} %`;

/** The share of the frame's middle that an area takes, 0..1; a circle counts with its bounding box. */
function shareOfMiddle(one: Area, output: Dimensions): number {
  return area(intersection(one, middle(output))) / area(middle(output));
}

function coveredFinding(place: Place, output: Dimensions): Finding | null {
  const covering = place.covered
    .map((one) => ({ reason: one.reason, share: shareOfMiddle(one, output) }))
    .filter((one) => one.share > 0);
  if (covering.length === 0) return null;
  const share = covering.reduce((sum, one) => sum + one.share, 0);
  const reasons = [...new Set(covering.map((one) => one.reason))].join(' and ');
  return {
    kind: 'covered middle',
    level: 'caution',
    text: `${percent(share)} of the frame's middle lies under ${reasons}: keep what matters out of there.`,
    measured: percent(share),
    allowed: '0 %',
  };
}

function hiddenFinding(place: Place, output: Dimensions): Finding | null {
  if (!place.shownPart) return null;
  const share = 1 - shareOfMiddle(place.shownPart, output);
  if (share <= 0.005) return null;
  const { width, height, reason } = place.shownPart;
  return {
    kind: 'hidden middle',
    level: 'caution',
    text: `Only ${width} × ${height} px is always shown (${reason}); ${percent(share)} of the frame's middle lies outside.`,
    measured: percent(share),
    allowed: '0 %',
  };
}
