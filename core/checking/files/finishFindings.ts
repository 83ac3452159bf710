import { changesNothing } from '../../finishing/index.ts';
import { area } from '../../geometry/index.ts';
import type { Finding, FrameChange } from '../../model/index.ts';
import { mostFinished } from '../../planning/index.ts';
import type { FrameToCheck } from '../frameToCheck.ts';

/** Mean overshoot at edges, as a share of their contrast, from which edges are seen to glow. */
const glowing = 0.06;
/** This many times the energy of edges, and a picture looks etched. */
const etched = 2;
/** Flat areas vary by this many levels before anybody sees grain, and this many times more than before. */
const grain = { levels: 1.5, times: 1.5 };
/** This share of the pixels may become black or white unnoticed. */
const clipped = 0.01;

const percent = (share: number, digits = 0) => `${(share * 100).toFixed(digits)} %`;

/** What a finish has done that a person would take back on seeing it. */
export function finishFindings(frame: FrameToCheck, file: { width: number; height: number }): Finding[] {
  const { treatment, settings, figures } = frame;
  if (!changesNothing(treatment) && area(file) > mostFinished) {
    return [
      caution('finish left out', {
        text: `A file of ${Math.round((file.width * file.height) / 1e6)} megapixels is left plain: finishing is for small sizes.`,
        measured: `${file.width} × ${file.height} px`,
        allowed: `${mostFinished / 1e6} megapixels`,
      }),
    ];
  }
  if (!figures) return [];
  const { plain, finished, halo } = figures;
  const times = plain.acutance > 0 ? finished.acutance / plain.acutance : 1;
  const softer: { label: string; change: FrameChange } =
    treatment.blend > 0.05
      ? { label: 'Halve the second pass', change: { blend: Math.round(treatment.blend * 50) / 100 } }
      : { label: 'Finish it gently', change: { finishId: 'gentle', blend: null } };
  const fix = settings.finishId === 'gentle' && treatment.blend <= 0.05 ? {} : { fix: softer };
  const found: Finding[] = [];
  // A tone that gives more contrast gives steeper edges, and more grain, which is what it is for.
  const untoned = treatment.tone.kind === 'as it is';
  if (halo > glowing || (untoned && times > etched)) {
    found.push(
      caution('over-sharpened', {
        text:
          halo > glowing
            ? `Edges overshoot their surroundings by ${percent(halo)} of their contrast: they will glow.`
            : `Its edges have ${times.toFixed(1)} times the energy of the plain picture: it will look harsh.`,
        measured: halo > glowing ? percent(halo) : times.toFixed(1),
        allowed: halo > glowing ? percent(glowing) : etched,
        ...fix,
      }),
    );
  }
  if (untoned && finished.noise > grain.levels && finished.noise > plain.noise * grain.times) {
    found.push(
      caution('noise lifted', {
        text: `Flat areas vary by ${finished.noise.toFixed(1)} levels instead of ${plain.noise.toFixed(1)}: grain comes out. A higher threshold leaves it alone.`,
        measured: finished.noise,
        allowed: Math.round(plain.noise * grain.times * 10) / 10,
        ...fix,
      }),
    );
  }
  const shadows = finished.shadows - plain.shadows;
  const lights = treatment.tone.kind === 'paper' ? 0 : finished.lights - plain.lights;
  if (shadows > clipped || lights > clipped) {
    const words = [
      ...(shadows > clipped ? [`${percent(finished.shadows, 1)} of it is black`] : []),
      ...(lights > clipped ? [`${percent(finished.lights, 1)} of it is white`] : []),
    ];
    found.push(
      caution('clipped', {
        text: `${words.join(' and ')}: detail there is lost. Move the black and white points further out.`,
        measured: percent(Math.max(shadows, lights), 1),
        allowed: percent(clipped),
      }),
    );
  }
  return found;
}

const caution = (kind: Finding['kind'], rest: Omit<Finding, 'kind' | 'level'>): Finding => ({
  kind,
  level: 'caution',
  ...rest,
});
