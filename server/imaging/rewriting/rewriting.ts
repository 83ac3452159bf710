import { UserError } from '../../userError.ts';
import { inThread } from '../threads.ts';
import type { NewPath, SvgText } from './svgTexts.ts';
import type { SvgTextsFound, SvgTextsTask } from './svgTextsTask.ts';

const task = new URL('./svgTextsTask.ts', import.meta.url);
/** Longer than this nobody waits. */
const mostMs = 20_000;

async function asked<Found extends SvgTextsFound>(what: SvgTextsTask): Promise<Found> {
  try {
    return await inThread<SvgTextsTask, Found>(task, what, 'arithmetic', AbortSignal.timeout(mostMs));
  } catch (error) {
    throw Object.assign(
      new UserError(
        'The texts of this drawing cannot be read: it is too large or too intricate. Change them where it was drawn.',
      ),
      { cause: error },
    );
  }
}

/** The texts of a drawing that are still text. @throws UserError where they cannot be read */
export const readTexts = (svg: string): Promise<SvgText[]> => asked({ svg, paths: null });

/** A drawing with paths instead of some of its texts. @throws UserError where they cannot be read */
export const replaceTexts = (svg: string, paths: readonly NewPath[]): Promise<string> => asked({ svg, paths });
