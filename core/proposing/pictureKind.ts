import type { PictureKind, PictureNature } from '../model/index.ts';

/** What kind of picture it is, by its pixels and by whether it lies on paper: see `natureOf` and `isOnPaper`. */
export const pictureKindOf = ({ kind }: Pick<PictureNature, 'kind'>, onPaper: boolean): PictureKind =>
  onPaper && kind !== 'flat artwork' ? 'scan' : kind;
