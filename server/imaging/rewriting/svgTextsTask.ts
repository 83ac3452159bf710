import { type NewPath, type SvgText, textsOf, withPaths } from './svgTexts.ts';

/** What is asked of a drawing: its texts, or with paths the drawing that has these instead of some of them. */
export type SvgTextsTask = { svg: string; paths: readonly NewPath[] | null };
export type SvgTextsFound = SvgText[] | string;

/** Goes over the texts of a drawing in a thread of its own: large ones take their time. */
export default async function svgTextsTask({ svg, paths }: SvgTextsTask): Promise<SvgTextsFound> {
  return paths ? withPaths(svg, paths) : textsOf(svg);
}
