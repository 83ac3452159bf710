import { verifyArchive } from '../tasks/verifying/verifyArchive.ts';
import { UserError } from '../userError.ts';

/** What a command ends with: all is right; it was called wrongly; something is wrong with what it was given. */
const codes = { right: 0, misuse: 1, wrong: 2 } as const;

const [path, ...further] = process.argv.slice(2);

async function run(): Promise<number> {
  if (!path || further.length > 0) {
    console.error('Say which archive is to be verified:  ./inkwell verify ARCHIVE.zip');
    return codes.misuse;
  }
  const { manifest, verdicts } = await verifyArchive(path);
  for (const { path: file, isWrong, text } of verdicts) console.log(`${isWrong ? 'Wrong' : 'Note'}  ${file}: ${text}`);
  const wrong = new Set(verdicts.filter(({ isWrong }) => isWrong).map((one) => one.path)).size;
  const count = manifest.files.length === 1 ? '1 file' : `${manifest.files.length} files`;
  const outcome = wrong === 0 ? 'all as they were delivered' : `${wrong} wrong`;
  console.log(`${manifest.project}, delivered ${manifest.delivered}: ${count}, ${outcome}.`);
  return wrong === 0 ? codes.right : codes.wrong;
}

try {
  process.exitCode = await run();
} catch (error) {
  if (!(error instanceof UserError)) throw error;
  console.error(error.message);
  process.exitCode = error.status === 404 ? codes.misuse : codes.wrong;
}
