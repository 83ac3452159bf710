import './PagePicker.css';
import type { Original } from '@inkwell/core/model';
import { Button, Modal } from 'antd';
import { useState } from 'react';
import { pageUrl, useOriginalActions } from '../../api/library/originals.ts';
import { useUndoNote } from '../useUndoNote.tsx';

/** Words for what a file holds several of. */
export const pagesWord = ({ format }: Pick<Original, 'format'>): string =>
  format === 'tiff' || format === 'heic' ? 'pages' : 'frames';

/** Shows the pages of a file that holds several pictures; each that is pressed becomes an original of its own. */
export function PagePicker({ original, onClose }: { original: Original; onClose: () => void }) {
  const { addPages } = useOriginalActions();
  const note = useUndoNote();
  const [chosen, setChosen] = useState<ReadonlySet<number>>(new Set());
  const word = pagesWord(original);
  const toggle = (page: number) =>
    setChosen((before) => {
      const next = new Set(before);
      if (!next.delete(page)) next.add(page);
      return next;
    });
  const take = () =>
    addPages.mutate(
      { id: original.id, pages: [...chosen].sort((a, b) => a - b) },
      { onSuccess: onClose, onError: note.failed },
    );
  return (
    <Modal
      open
      width={760}
      title={`The ${original.pages} ${word} of ${original.fileName}`}
      onCancel={onClose}
      footer={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button type="primary" disabled={chosen.size === 0} loading={addPages.isPending} onClick={take}>
            {chosen.size > 1 ? `Take these ${chosen.size}` : 'Take this one'}
          </Button>
        </>
      }
    >
      <p className="quiet small">Each that you choose becomes a picture of its own, now or at any later time.</p>
      <div className="page-picker">
        {Array.from({ length: original.pages }, (_, page) => (
          <button
            key={page}
            type="button"
            className="plain-button"
            aria-pressed={chosen.has(page)}
            aria-label={`${page + 1} of ${original.pages}`}
            disabled={page === original.page}
            onClick={() => toggle(page)}
          >
            <PagePicture original={original} page={page} />
            <span className="small">{page === original.page ? `${page + 1}, taken` : page + 1}</span>
          </button>
        ))}
      </div>
    </Modal>
  );
}

function PagePicture({ original, page }: { original: Original; page: number }) {
  const [failed, setFailed] = useState(false);
  if (failed) return <span className="page-missing quiet small">It cannot be shown: it is damaged.</span>;
  return <img alt="" loading="lazy" src={pageUrl(original, page)} onError={() => setFailed(true)} />;
}
