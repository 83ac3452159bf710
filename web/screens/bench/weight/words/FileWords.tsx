import { itemsOnPicture } from '@inkwell/core/lettering';
import type { Lettering, MetadataPolicy, Weight, Words } from '@inkwell/core/model';
import { Button, Checkbox } from 'antd';
import type { BenchFrame } from '../../frames/benchFrame.ts';
import { useBenchStore } from '../../state/useBench.ts';
import { WordField } from './WordField.tsx';

const wordFields: [keyof Words, string][] = [
  ['credit', 'Credit'],
  ['copyright', 'Copyright'],
  ['altText', 'Alternative text'],
];
const keepingFields: [keyof MetadataPolicy, string, string][] = [
  ['words', 'Credit, copyright and alternative text', 'Written as EXIF and as IPTC in XMP'],
  ['profile', 'A colour profile (sRGB, small)', 'For programs that would otherwise guess'],
  ['position', 'Where it was taken', 'Anyone who has the file can read it'],
  ['device', 'Camera and its serial numbers', 'Anyone who has the file can read it'],
];

/** What goes into the files of the project beside their pixels, and the words of this picture. */
export function FileWords({ one, weight }: { one: BenchFrame; weight: Weight | null }) {
  const { original, frame, finishing } = one;
  const store = useBenchStore();
  const { keeping } = finishing.project;
  const { origin } = original;
  const setWords = (key: keyof Words, text: string) =>
    store.set('originals', original.id, { words: { ...original.words, [key]: text } });
  const written = writtenOn(finishing.project.lettering, original.id);
  const withWritten = [original.words.altText, written]
    .filter((text) => text !== '')
    .join(' ')
    .slice(0, 2000);
  const known: Record<keyof MetadataPolicy, boolean> = {
    words: true,
    profile: true,
    position: origin.position !== null,
    device: origin.device !== null,
  };
  return (
    <section className="file-words" aria-label="Metadata">
      <h2 className="minor-title">In all files of this project</h2>
      {keepingFields.map(([key, label, hint]) => (
        <Checkbox
          key={key}
          checked={keeping[key]}
          title={known[key] ? hint : `${hint}. This picture says nothing about it.`}
          onChange={({ target }) =>
            store.set('projects', frame.projectId, { keeping: { ...keeping, [key]: target.checked } })
          }
        >
          <span className={known[key] ? undefined : 'quiet'}>{label}</span>
        </Checkbox>
      ))}
      <p className="quiet small">
        {weight
          ? `It takes ${weight.metadataBytes.toLocaleString('en')} bytes of this file.`
          : 'Its bytes are being counted …'}
      </p>
      <h2 className="minor-title">Words of “{original.name}”</h2>
      {wordFields.map(([key, label]) => (
        <WordField
          key={`${original.id} ${key} ${original.words[key]}`}
          label={label}
          most={key === 'altText' ? 2000 : 300}
          value={original.words[key]}
          onSet={(text) => setWords(key, text)}
        />
      ))}
      {written !== '' && !original.words.altText.includes(written) && (
        <Button size="small" title={written} onClick={() => setWords('altText', withWritten)}>
          Add what is written on it to the alternative text
        </Button>
      )}
    </section>
  );
}

/** What a project's lettering says on one original, as a sentence each. */
function writtenOn(lettering: Lettering, originalId: string): string {
  const sentence = (text: string) => {
    const line = text.trim().replace(/\s+/gu, ' ');
    return /[.!?]$/.test(line) ? line : `${line}.`;
  };
  return itemsOnPicture(lettering, originalId)
    .flatMap((item) => (item.kind === 'words' ? [item.text] : []))
    .map(sentence)
    .join(' ');
}
