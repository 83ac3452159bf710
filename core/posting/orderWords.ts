import type { KitEntry, Post } from './kit.ts';

/** In which order the files of a post go up, or where its tile comes to stand; empty where there is but one picture. */
export function orderWords({ group }: Pick<KitEntry, 'group'>, { files }: Pick<Post, 'files'>): string {
  const piece = files[0]?.line.piece;
  if (!piece) return '';
  if (group === 'panels') return `${files.length} panels, uploaded in this order`;
  if (group === 'quilt') return `Post ${piece.number} of ${piece.of}: row ${piece.row}, column ${piece.column}`;
  return `${piece.columns} × ${piece.rows} tiles, uploaded in this order and no other`;
}
