import type { ManifestFile } from '../model/index.ts';

/**
 * How to post what was delivered, as plain text: per place the files in the order in which they go up. Empty where
 * nothing of it was cut into pieces.
 */
export function postingInstructions(files: readonly ManifestFile[]): string {
  const groups = new Map<string, ManifestFile[]>();
  for (const file of files) {
    if (!file.piece) continue;
    const key = `${file.planHash} ${file.network} ${file.place}`;
    groups.set(key, [...(groups.get(key) ?? []), file]);
  }
  return [...groups.values()]
    .map((group) => {
      const [first] = group;
      if (!first?.piece) return '';
      const { of, columns, rows } = first.piece;
      const how =
        rows === 1
          ? `${of} panels, swiped from the left`
          : `${columns} columns x ${rows} rows, to be uploaded in this order and no other`;
      const lines = [...group]
        .sort((a, b) => (a.piece?.number ?? 0) - (b.piece?.number ?? 0))
        .map(({ file, piece }) => {
          const where = piece && rows > 1 ? `  (row ${piece.row}, column ${piece.column})` : '';
          return `  ${String(piece?.number).padStart(2)}. ${file}${where}`;
        });
      return [`${first.network}, ${first.place}: ${first.original}`, `  ${how}`, ...lines, ''].join('\n');
    })
    .join('\n');
}
