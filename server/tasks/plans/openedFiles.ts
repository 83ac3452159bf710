import type { Rendered } from '../../imaging/encoding/render.ts';
import { measureFile } from '../../imaging/measuring/opening.ts';
import { mapTwoAtATime } from '../../running/mapTwoAtATime.ts';
import type { FinishedFile } from '../../store/measured/encodings.ts';

/** Opens the files of a plan again, each whole, and measures what they cost at the seams. @throws where one cannot be decoded */
export async function openedFiles({ pieces, seams }: Pick<Rendered, 'pieces' | 'seams'>): Promise<FinishedFile[]> {
  const steps = await seams();
  const files: FinishedFile[] = [];
  await mapTwoAtATime(pieces, async ({ data }, index) => {
    files[index] = { data, seams: steps.get(index) ?? [], opened: await measureFile(data) };
  });
  return files;
}
