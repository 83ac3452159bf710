import { type Finding, formatLimit, leastSimilarity, limitFor, worstSimilarity } from '../../model/index.ts';
import { marginOver, similarityFloor, tierFloors } from '../../weighing/index.ts';
import type { FrameToCheck } from '../frameToCheck.ts';

const points = (similarity: number) => similarity.toFixed(1);

/** What encoding has cost a frame that a person would see, or that breaks it. */
export function similarityFindings({ place, settings, weight }: FrameToCheck): Finding[] {
  if (!weight) return [];
  const { weighing } = settings;
  const [overall, worst] = [leastSimilarity(weight), worstSimilarity(weight)];
  const limit = formatLimit(limitFor(place, settings.format));
  const broken = weight.files.some(({ similarity }) => marginOver(similarity, similarityFloor) < 0);
  if (broken && !weighing.belowFloor) {
    return [
      {
        kind: 'low quality',
        level: 'blocker',
        text:
          `To stay under ${limit} it would have to lose too much: ${points(overall)} of 100 are left, ` +
          `${points(worst)} at the worst spot. See the ways to make it fit under Weight.`,
        measured: overall,
        allowed: similarityFloor.overall,
        fix: { label: 'Deliver it anyway', change: { weighing: { ...weighing, belowFloor: true } } },
      },
    ];
  }
  const { glance } = tierFloors;
  const flatAreaError = Math.max(...weight.files.map((file) => file.similarity.flatAreaError));
  const caution = (kind: Finding['kind'], measured: number, allowed: number, text: string): Finding[] => [
    { kind, level: 'caution', text, measured, allowed },
  ];
  // One of them is enough: what breaks the whole breaks its spots as well.
  if (overall < glance.overall) {
    const marked = weight.files.some(({ similarity }) => similarity.overall > overall);
    const text = `${marked ? 'Of a keep mark' : 'Of the picture'} ${points(overall)} of 100 are left after encoding: it will be seen.`;
    return caution('low quality', overall, glance.overall, text);
  }
  if (flatAreaError > glance.flatAreaError) {
    const text = `Flat areas have changed by ${flatAreaError.toFixed(1)} of 255 levels at one spot: bands or specks will show.`;
    return caution('low quality', flatAreaError, glance.flatAreaError, text);
  }
  if (worst < glance.worst) {
    const text = `At one spot only ${points(worst)} of 100 is left. Look at it under Weight.`;
    return caution('ruined spot', worst, glance.worst, text);
  }
  const blockError = Math.max(...weight.files.map((file) => file.similarity.blockError));
  if (blockError > glance.blockError) {
    const text = `One block of 8 × 8 px has moved by ${blockError.toFixed(0)} of 255 levels. Look at the file under Weight.`;
    return caution('ruined spot', blockError, glance.blockError, text);
  }
  return [];
}
