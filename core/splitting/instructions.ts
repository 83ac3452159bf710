import type { ManifestFile, PieceOfWhole } from '../model/index.ts';

/** A file that is one of several pieces. */
type Cut = ManifestFile & { piece: PieceOfWhole };

/**
 * How to post what was delivered, as plain text: per place the files in the order in which they go up. Empty where
 * nothing of it was cut into pieces.
 */
export function postingInstructions(files: readonly ManifestFile[]): string {
  const groups = new Map<string, Cut[]>();
  for (const { piece, ...file } of files) {
    if (!piece) continue;
    const key = `${file.planHash} ${file.network} ${file.place}`;
    groups.set(key, [...(groups.get(key) ?? []), { ...file, piece }]);
  }
  return [...groups.values()]
    .map((group) => {
      const [{ network, place, original, piece }] = group as [Cut];
      const { of, columns, rows } = piece;
      const how =
        rows === 1
          ? `${of} panels, swiped from the left`
          : `${columns} columns x ${rows} rows, to be uploaded in this order and no other`;
      const lines = [...group]
        .sort((a, b) => a.piece.number - b.piece.number)
        .map(({ file, piece: { number, row, column } }) => {
          const where = rows > 1 ? `  (row ${row}, column ${column})` : '';
          return `  ${String(number).padStart(2)}. ${file}${where}`;
        });
      return [`${network}, ${place}: ${original}`, `  ${how}`, ...lines, ''].join('\n');
    })
    .join('\n');
}
