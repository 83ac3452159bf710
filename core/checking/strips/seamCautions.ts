import type { ManifestFile } from '../../model/index.ts';

/** A step that grew by more than this at a seam, in levels of 255, can be seen when it is looked for. */
const seen = 3;

/** Seams of a delivery that could be seen because the pieces were encoded each by itself, in words. */
export function seamCautions(files: readonly ManifestFile[]): string[] {
  return files.flatMap(({ file, piece, seams = [], planHash }) =>
    seams
      .filter(({ step, undivided }) => step - undivided > seen)
      .map(({ next, step, undivided }) => {
        const other = files.find((one) => one.planHash === planHash && one.piece?.index === next);
        const between = piece && other?.piece ? ` and ${other.file}` : '';
        return `The seam between ${file}${between} could be seen: a step of ${step.toFixed(1)} levels, ${undivided.toFixed(1)} in the undivided picture. A higher quality or PNG would hide it.`;
      }),
  );
}
