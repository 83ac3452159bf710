import {
  formatLimit,
  formatWeight,
  type ManifestFile,
  type NetworkRefusal,
  type NetworkRefusalCode,
  type RefusedFile,
} from '../model/index.ts';

/** The rule behind a refusal. */
const rules: Record<NetworkRefusalCode, string> = {
  'wrong token': 'the account',
  'too many requests': 'requests at a time',
  'unknown place': 'the place',
  'unreadable request': 'the request',
  'no such post': 'the post',
  'already published': 'the post',
  'out of order': 'the posting order',
  'other content': 'the posting order',
  'too many files': 'the number of files in a post',
  'too few files': 'the number of files in a post',
  'unreadable picture': 'a file that can be opened',
  format: 'the format',
  animated: 'one frame only',
  'colour model': 'the colours',
  alpha: 'no transparent parts',
  dimensions: 'the dimensions',
  ratio: 'the aspect ratio',
  'too heavy': 'the weight',
  broken: 'nothing that is known',
};

/** A refusal in the program's words: which rule, what the spec book says of it, and what to do. */
export function refusedFile({ error }: NetworkRefusal, line: ManifestFile): RefusedFile {
  const { code, message, allowed = null, measured = null, limitBytes = null, mostFiles = null } = error;
  const { isNews, fix } = judged(code, line, limitBytes);
  return { code, said: message, allowed, measured, limitBytes, mostFiles, rule: rules[code], fix, isNews };
}

const own = 'Nothing you set is wrong. Run the dry run again.';

function judged(
  code: NetworkRefusalCode,
  line: ManifestFile,
  limitBytes: number | null,
): Pick<RefusedFile, 'isNews' | 'fix'> {
  const spec = line.placeThen?.spec;
  const place = `${line.network} ${line.place}`;
  switch (code) {
    case 'too heavy': {
      const limit = { bytes: line.limitBytes, unit: line.limitUnit };
      const isNews = line.bytes <= line.limitBytes;
      if (!isNews) return { isNews, fix: `Deliver it again: ${place} takes ${formatLimit(limit)}.` };
      const theirs = limitBytes === null ? 'less' : formatWeight(limitBytes, line.limitUnit);
      return {
        isNews,
        fix: `The spec book says ${formatLimit(limit)}, the network takes ${theirs}. Take that over into the sheet, then deliver again.`,
      };
    }
    case 'format':
    case 'alpha': {
      const isNews = code === 'alpha' || (spec?.formats.includes(line.format) ?? true);
      const other = spec?.formats.includes('jpeg') && line.format !== 'jpeg' ? 'JPEG' : 'another format';
      return { isNews, fix: `Set its format to ${other} on the bench, then deliver again.` };
    }
    case 'dimensions':
    case 'ratio':
      return { isNews: true, fix: `Change the dimensions of ${place} in a sheet of your own, then deliver again.` };
    case 'too many files':
    case 'too few files':
      return { isNews: true, fix: 'Cut the picture into another number of pieces on the bench, then deliver again.' };
    case 'unknown place':
      return { isNews: true, fix: `The network has no place like ${line.place}. Choose another one.` };
    case 'animated':
    case 'colour model':
    case 'unreadable picture':
      return { isNews: true, fix: 'Deliver again. If it happens again, set another format on the bench.' };
    default:
      return { isNews: false, fix: own };
  }
}
