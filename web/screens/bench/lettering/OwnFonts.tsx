import type { FontFamily } from '@inkwell/core/model';
import { App, Button } from 'antd';
import { useState } from 'react';
import { sentenceOf } from '../../../api/client.ts';
import { addFont, putFontAside, takeFontBack } from '../../../api/library/fonts.ts';
import { askAgain } from '../../../fonts/pageFonts.ts';
import { FileButton } from '../../../parts/FileButton.tsx';
import { ForEditors } from '../../../parts/ForEditors.tsx';
import { useUndoNote } from '../../../parts/useUndoNote.tsx';

/** Takes in a font of one's own, and puts the one that is chosen aside where it is one's own. */
export function OwnFonts(props: {
  /** The family that is chosen; null where it is not here. */
  family: FontFamily | null;
  onAdded: (id: string) => void;
}) {
  const { family, onAdded } = props;
  const { notification } = App.useApp();
  const note = useUndoNote();
  const [isSending, setIsSending] = useState(false);
  const add = async (file: File) => {
    setIsSending(true);
    try {
      const { id } = await addFont(file);
      await askAgain();
      onAdded(id);
    } catch (error) {
      notification.error({ title: `${file.name} was not added`, description: sentenceOf(error) });
    } finally {
      setIsSending(false);
    }
  };
  const putAside = async ({ id }: FontFamily) => {
    await putFontAside(id);
    await askAgain();
  };
  return (
    <span className="row wrap">
      <FileButton
        size="small"
        loading={isSending}
        title="A TTF, OTF, WOFF or WOFF2 file of up to 20 MB. It stays on this machine."
        accept=".ttf,.otf,.woff,.woff2,font/ttf,font/otf,font/woff,font/woff2"
        name="A font to add"
        onFile={(file) => void add(file)}
      >
        Add a font …
      </FileButton>
      {family?.isOwn && !family.isHidden && (
        <ForEditors>
          <Button
            size="small"
            onClick={() =>
              void note.after(
                putAside(family),
                `${family.name} was put aside. Words that are set in it stay as they are.`,
                async () => {
                  await takeFontBack(family.id);
                  await askAgain();
                },
              )
            }
          >
            Put {family.name} aside
          </Button>
        </ForEditors>
      )}
    </span>
  );
}
