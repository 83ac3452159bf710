import { type LetterStyle, LetterStyleFileSchema, type NamedLetterStyle } from '@inkwell/core/model';
import { App, Button, Input } from 'antd';
import equal from 'fast-deep-equal';
import { useState } from 'react';
import { sentenceOf } from '../../../api/client.ts';
import { letterStyleFileUrl, useLetterStyleActions } from '../../../api/library/letterStyles.ts';
import { ForEditors } from '../../../parts/ForEditors.tsx';
import { ImportButton } from '../../../parts/ImportButton.tsx';
import { useUndoNote } from '../../../parts/useUndoNote.tsx';

/** Keeps the style that words have under a name, passes it on as a file, and takes in what others have passed on. */
export function OwnStyles(props: {
  style: LetterStyle;
  /** All that have a name, those that ship among them. */
  named: readonly NamedLetterStyle[];
  onChoose: (style: LetterStyle) => void;
}) {
  const { style, named, onChoose } = props;
  const { notification } = App.useApp();
  const note = useUndoNote();
  const actions = useLetterStyleActions();
  const [name, setName] = useState('');
  const same = named.find((one) => equal(one.style, style));
  const failed = (title: string) => (error: unknown) => {
    notification.error({ title, description: sentenceOf(error) });
  };
  const keep = () =>
    actions.add.mutate({ name: name.trim(), style }, { onSuccess: () => setName(''), onError: failed('Not saved') });
  return (
    <div className="own-styles small">
      {same ? (
        <span className="row wrap">
          <Button size="small" href={letterStyleFileUrl(same.id)} download>
            Export {same.name}
          </Button>
          {!same.shipped && (
            <ForEditors>
              <Button
                size="small"
                onClick={() =>
                  void note.after(
                    actions.remove.mutateAsync(same.id),
                    `${same.name} was deleted. Words that have it keep it.`,
                    () => actions.restore.mutateAsync(same.id),
                  )
                }
              >
                Delete {same.name}
              </Button>
            </ForEditors>
          )}
        </span>
      ) : (
        <ForEditors>
          <span className="row">
            <Input
              size="small"
              aria-label="Name of this style"
              placeholder="Save this style as …"
              maxLength={120}
              value={name}
              onChange={({ target }) => setName(target.value)}
              onPressEnter={() => name.trim() !== '' && keep()}
            />
            <Button size="small" disabled={name.trim() === ''} loading={actions.add.isPending} onClick={keep}>
              Save
            </Button>
          </span>
        </ForEditors>
      )}
      <ImportButton
        schema={LetterStyleFileSchema}
        what="style"
        onRead={(file) =>
          actions.read.mutate(file, { onSuccess: (made) => onChoose(made.style), onError: failed('Not read') })
        }
      />
    </div>
  );
}
