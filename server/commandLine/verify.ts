import { verifyArchive } from '../tasks/verifying/verifyArchive.ts';
import { type Code, codes } from './codes.ts';

/** Holds the archive of a delivery against its manifest and the spec book, and says what is wrong. */
export async function verify(path: string): Promise<Code> {
  const { manifest, verdicts } = await verifyArchive(path);
  for (const { path: file, isWrong, text } of verdicts) console.log(`${isWrong ? 'Wrong' : 'Note'}  ${file}: ${text}`);
  const wrong = new Set(verdicts.filter(({ isWrong }) => isWrong).map((one) => one.path)).size;
  const count = manifest.files.length === 1 ? '1 file' : `${manifest.files.length} files`;
  const outcome = wrong === 0 ? 'all as they were delivered' : `${wrong} wrong`;
  console.log(`${manifest.project}, delivered ${manifest.delivered}: ${count}, ${outcome}.`);
  return wrong === 0 ? codes.right : codes.wrong;
}
