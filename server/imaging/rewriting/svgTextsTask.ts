import { type NewPath, type SvgText, textsOf, withPaths } from './svgTexts.ts';

/** What is asked of a drawing: its texts, or the same with paths instead of some of them. */
export type SvgTextsTask = { svg: string; paths?: readonly NewPath[] };
export interface SvgTextsFound {
  texts: SvgText[];
  svg: string;
}

/** Goes over the texts of a drawing in a thread of its own: large ones take their time. */
export default async function svgTextsTask({ svg, paths = [] }: SvgTextsTask): Promise<SvgTextsFound> {
  return { texts: textsOf(svg), svg: paths.length > 0 ? withPaths(svg, paths) : svg };
}
