import { frameWindow, marksOnPicture, type Unmet, unmetMarks } from '../framing/index.ts';
import {
  area,
  boundsOf,
  clampWindow,
  enlargement,
  intersection,
  type Picture,
  pictureBox,
  placeDimensions,
  type Rect,
} from '../geometry/index.ts';
import {
  type Area,
  carriesTransparency,
  type Dimensions,
  type Finding,
  type FrameChange,
  type FrameSettings,
  formatLabel,
  formatLimit,
  formatWeight,
  type Original,
  type Place,
  type Weight,
  type Window,
} from '../model/index.ts';
import { flattenColour } from '../planning/index.ts';

export interface FrameToCheck {
  original: Picture & Pick<Original, 'hasAlpha' | 'marks'>;
  place: Place;
  settings: FrameSettings;
  /** Null while it has not been measured. */
  weight: Weight | null;
}

/** Enlargement from which the caution becomes a strong one. */
const strongEnlargement = 1.5;
/** Encoder quality under which blocks and smears begin to show on a photograph. */
const plainlyVisibleQuality = 60;

/**
 * Everything that is wrong or doubtful about one frame: blockers first, then cautions.
 *
 * @param window what the frame shows, where that was worked out already
 */
export function frameFindings(
  frame: FrameToCheck,
  window: Window = frameWindow(frame.original, frame.place, frame.settings),
): Finding[] {
  const output = placeDimensions(frame.place, frame.original);
  const found = [
    formatFinding(frame),
    weightFinding(frame),
    ...markFindings(frame, window, output),
    enlargedFinding(frame, window, output),
    transparencyFinding(frame),
    coveredFinding(frame.place, output),
    hiddenFinding(frame.place, output),
  ].filter((finding) => finding !== null);
  return [...found.filter((one) => one.level === 'blocker'), ...found.filter((one) => one.level === 'caution')];
}

function formatFinding({ place, settings }: FrameToCheck): Finding | null {
  if (place.formats.includes(settings.format)) return null;
  const taken = place.formats.map((format) => formatLabel[format]).join(', ');
  const other = place.formats.includes('jpeg') ? 'jpeg' : place.formats.includes('png') ? 'png' : null;
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
  if (!weight) return null;
  const { unit } = place.limit;
  const allowed = formatLimit(place.limit);
  if (!weight.fits) {
    const measured = formatWeight(weight.bytes, unit);
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
  if (weight.quality !== null && weight.quality < plainlyVisibleQuality) {
    return {
      kind: 'low quality',
      level: 'caution',
      text: `To stay under ${allowed} the quality had to go down to ${weight.quality}; it may be seen.`,
      measured: weight.quality,
      allowed: plainlyVisibleQuality,
    };
  }
  return null;
}

function enlargedFinding({ original, settings }: FrameToCheck, window: Window, output: Dimensions): Finding | null {
  const times = enlargement(window, output);
  if (times <= 1.0005) return null;
  const loosened = clampWindow({ ...window, span: output.width }, boundsOf(original, settings.backing), output);
  const reaches = enlargement(loosened, output);
  const label = reaches <= 1.0005 ? 'Loosen to 1×' : `Loosen to ${reaches.toFixed(2)}×`;
  const strong = times > strongEnlargement;
  return {
    kind: 'enlarged',
    level: 'caution',
    text: strong
      ? `Enlarged ${times.toFixed(2)} times: it will look soft. Loosen the frame or choose a smaller place.`
      : `Enlarged ${times.toFixed(2)} times: the frame asks for more pixels than the original has here.`,
    measured: Number(times.toFixed(3)),
    allowed: 1,
    ...(reaches < times - 0.005 ? { fix: { label, change: { composed: false, window: loosened } } } : {}),
  };
}

function transparencyFinding({ original, place, settings }: FrameToCheck): Finding | null {
  const transparent = original.hasAlpha || settings.backing?.kind === 'transparent';
  if (!transparent || carriesTransparency(settings.format)) return null;
  const takesPng = place.formats.includes('png');
  return {
    kind: 'transparency',
    level: 'caution',
    text: `JPEG has no transparency: transparent parts become white (${flattenColour}).`,
    measured: 'JPEG',
    allowed: 'PNG',
    ...(takesPng ? { fix: { label: 'Deliver as PNG', change: { format: 'png' } } } : {}),
  };
}

const markKinds = {
  cut: 'mark cut',
  covered: 'mark covered',
  'not always shown': 'mark not always shown',
  shown: 'avoided mark shown',
} as const;

/** Marks that the frame does not honour, each with what would: composing again, or showing the whole picture. */
function markFindings(frame: FrameToCheck, window: Window, output: Dimensions): Finding[] {
  const { original, place, settings } = frame;
  // What should be in but is not a must may go for the sake of the rest: that is what it is marked for.
  const telling = marksOnPicture(original.marks, pictureBox(original)).filter(
    (mark) => mark.role === 'avoid' || mark.priority === 'must',
  );
  const unmet = unmetMarks(window, place, output, telling);
  if (unmet.length === 0) return [];
  const helps = (change: FrameChange, one: Unmet) => {
    const changed = frameWindow(original, place, { ...settings, ...change });
    return !unmetMarks(changed, place, output, telling).some((other) => other.markId === one.markId);
  };
  const ways: { label: string; change: FrameChange }[] = [
    ...(settings.composed ? [] : [{ label: 'Compose again', change: { composed: true } }]),
    { label: 'Show all of it on an echo', change: { composed: true, backing: { kind: 'echo' as const } } },
  ];
  return unmet.map((one): Finding => {
    const fix = ways.find((way) => helps(way.change, one));
    return {
      kind: markKinds[one.kind],
      level: 'caution',
      text: one.text,
      measured: one.kind === 'cut' ? one.pixels : one.kind,
      allowed: one.kind === 'cut' ? 0 : one.kind === 'shown' ? 'out' : 'open',
      ...(fix ? { fix } : {}),
    };
  });
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
