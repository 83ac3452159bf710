import type { DrawnTexts as Drawn, Original, Rewriting } from '@inkwell/core/model';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { sentenceOf } from '../../../api/client.ts';
import { useDrawnTexts, useRewriting } from '../../../api/projects/drawnTexts.ts';
import { useUndoNote } from '../../../parts/useUndoNote.tsx';
import { FontField } from './FontField.tsx';

/** The words inside of a drawing that are still text, to be replaced for this project. Nothing where there are none. */
export function DrawnTexts(props: {
  projectId: string;
  original: Original;
  onExchanged: (originalId: string) => void;
}) {
  const { original } = props;
  const { data, error } = useDrawnTexts(original);
  if (error) return <p className="quiet small">The words inside this drawing are not known. {sentenceOf(error)}</p>;
  if (!data || data.texts.length === 0) return null;
  return <DrawnTextFields key={original.id} {...props} drawn={data} />;
}

const firstFamily = 'sofia-sans';
const nothing: Rewriting = { family: firstFamily, words: [] };

function DrawnTextFields(props: {
  projectId: string;
  original: Original;
  drawn: Drawn;
  onExchanged: (originalId: string) => void;
}) {
  const { projectId, original, drawn, onExchanged } = props;
  const rewriting = drawn.rewriting ?? nothing;
  const before = (at: number) =>
    rewriting.words.find((one) => one.at === at)?.text ?? drawn.texts.find((one) => one.at === at)?.text ?? '';
  const [typed, setTyped] = useState<ReadonlyMap<number, string>>(new Map());
  const [family, setFamily] = useState(rewriting.family);
  const note = useUndoNote();
  const rewrite = useRewriting(projectId);
  const saysNow = (at: number) => typed.get(at) ?? before(at);
  const words = drawn.texts.map(({ at }) => ({ at, text: saysNow(at) }));
  const isChanged = drawn.texts.some(({ at }) => saysNow(at) !== before(at));
  const isOtherFont = rewriting.words.length > 0 && family !== rewriting.family;
  const exchange = async (next: Rewriting, said: string) => {
    try {
      const made = await rewrite.mutateAsync({ originalId: original.id, rewriting: next });
      onExchanged(made);
      note.done(said, async () => onExchanged(await rewrite.mutateAsync({ originalId: made, rewriting })));
    } catch (error) {
      note.failed(error);
    }
  };
  return (
    <section className="drawn-texts" aria-label="Words inside this drawing">
      <h3 className="minor-title">Words inside this drawing</h3>
      <p className="quiet small">
        What you write here takes the place of the drawing’s own words, in this project alone. The file stays as it is.
      </p>
      {drawn.texts.map(({ at, text }, index) => (
        <div className="letter-field" key={at}>
          <span title={text}>Text {index + 1}</span>
          <Input.TextArea
            size="small"
            aria-label={`Text ${index + 1} of this drawing`}
            autoSize={{ minRows: 1, maxRows: 4 }}
            maxLength={600}
            placeholder="Nothing: it is left out"
            value={saysNow(at)}
            onChange={({ target }) => setTyped(new Map(typed).set(at, target.value))}
          />
        </div>
      ))}
      <FontField label="Their font" name="Font of the new words" family={family} onChoose={setFamily} />
      <span className="row wrap">
        <Button
          size="small"
          type="primary"
          loading={rewrite.isPending}
          disabled={!isChanged && !isOtherFont}
          onClick={() => void exchange({ family, words }, 'The words of this drawing were replaced.')}
        >
          Replace the words
        </Button>
        {rewriting.words.length > 0 && (
          <Button
            size="small"
            disabled={rewrite.isPending}
            onClick={() => void exchange(nothing, 'This drawing says again what it said when it came.')}
          >
            Put the old words back
          </Button>
        )}
      </span>
    </section>
  );
}
