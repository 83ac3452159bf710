import {
  type Dimensions,
  type Finding,
  formatLabel,
  formatLimit,
  formatWeight,
  limitFor,
  sidesWords,
} from '../model/index.ts';
import type { FrameToCheck } from './frameToCheck.ts';

/** What a network recommends and a frame does not do: it is taken all the same. */
export function wishFindings({ place, settings, weight }: FrameToCheck): Finding[] {
  const { weight: light, formats } = place.wishes ?? {};
  const found: Finding[] = [];
  const [wished] = (formats ?? []).filter((format) => place.formats.includes(format));
  if (formats && wished && !formats.includes(settings.format)) {
    const allowed = formats.map((format) => formatLabel[format]).join(' or ');
    const measured = formatLabel[settings.format];
    const fix = { label: `Deliver as ${formatLabel[wished]}`, change: { format: wished } };
    const text = `${place.name} takes ${measured} and recommends ${allowed}.`;
    found.push({ kind: 'not as wished', level: 'caution', text, measured, allowed, fix });
  }
  if (light && weight && weight.bytes > light.bytes && weight.bytes <= limitFor(place, settings.format).bytes) {
    const [measured, allowed] = [formatWeight(weight.bytes, light.unit), formatLimit(light)];
    const text = `This file weighs ${measured}. It is taken; ${place.name} recommends at most ${allowed}.`;
    found.push({ kind: 'not as wished', level: 'caution', text, measured, allowed });
  }
  return found;
}

/** A window that a hand has moved at a place that had other dimensions then. */
export function carriedFinding({ settings: { carriedFrom } }: FrameToCheck, output: Dimensions): Finding | null {
  if (!carriedFrom) return null;
  return {
    kind: 'carried over',
    level: 'caution',
    text: `The place was ${sidesWords(carriedFrom)} when this window was set; now it is ${sidesWords(output)}. The window was carried over: look at it.`,
    measured: sidesWords(output),
    allowed: sidesWords(carriedFrom),
    fix: { label: 'It is fine', change: { carriedFrom: null } },
  };
}
