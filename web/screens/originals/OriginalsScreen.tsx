import './OriginalsScreen.css';
import { CopyOutlined, DeleteOutlined, DownloadOutlined } from '@ant-design/icons';
import type { Original } from '@inkwell/core/model';
import { formatWeight } from '@inkwell/core/model';
import { Button } from 'antd';
import { useState } from 'react';
import { useMay } from '../../api/access/workspaces.ts';
import { fileUrl, previewUrl, useOriginalActions, useOriginals } from '../../api/library/originals.ts';
import { DropArea } from '../../parts/DropArea.tsx';
import { ForEditors } from '../../parts/ForEditors.tsx';
import { NameField } from '../../parts/fields/NameField.tsx';
import { useGrowing } from '../../parts/many/useGrowing.tsx';
import { PagePicker, pagesWord } from '../../parts/pictures/PagePicker.tsx';
import { Empty, Failure, Skeleton } from '../../parts/States.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { ShareNotice } from '../shares/ShareNotice.tsx';

const none: Original[] = [];

/** All pictures that came in. */
export function OriginalsScreen() {
  const { data, error, refetch } = useOriginals();
  const { rename, duplicate, remove, restore } = useOriginalActions();
  const note = useUndoNote();
  const mayChange = useMay('editor');
  const { drawn, end } = useGrowing(data ?? none);
  const [picking, setPicking] = useState<Original | null>(null);
  const removeOriginal = ({ id, name }: Original) =>
    note.after(remove.mutateAsync(id), `“${name}” was deleted, with its frames.`, () => restore.mutateAsync(id));
  return (
    <div className="page">
      <h1 style={{ marginBottom: 16 }}>Originals</h1>
      <ShareNotice />
      <DropArea />
      <div style={{ height: 20 }} />
      {error && !data && <Failure error={error} again={() => void refetch()} />}
      {!data && !error && <Skeleton height={240} />}
      {data?.length === 0 && <Empty title="No pictures yet">Originals are kept unchanged, bit for bit.</Empty>}
      {picking && <PagePicker original={picking} onClose={() => setPicking(null)} />}
      <div className="originals-grid">
        {drawn.map((original) => (
          <article key={original.id} className="sheet" aria-label={original.name}>
            <div className="original-picture">
              <img alt="" loading="lazy" src={previewUrl(original, 480)} />
            </div>
            <div className="original-line">
              <h2 className="minor-title">
                <NameField
                  name={original.name}
                  what="original"
                  onRename={
                    mayChange ? (name) => rename.mutateAsync({ id: original.id, name }).catch(note.failed) : null
                  }
                />
              </h2>
              <div className="quiet small">
                {original.width} × {original.height} px · {original.format.toUpperCase()} ·{' '}
                {formatWeight(original.bytes, 'MB')}
              </div>
              {original.pages > 1 && mayChange && (
                <Button size="small" onClick={() => setPicking(original)}>
                  {original.page + 1} of {original.pages} {pagesWord(original)}: take others
                </Button>
              )}
              <div className="row" style={{ gap: 2, marginLeft: -8 }}>
                <Button
                  type="text"
                  size="small"
                  icon={<DownloadOutlined />}
                  href={fileUrl(original)}
                  title="Download, bit for bit"
                  aria-label={`Download ${original.name}`}
                />
                <ForEditors>
                  <Button
                    type="text"
                    size="small"
                    icon={<CopyOutlined />}
                    title="Duplicate"
                    aria-label={`Duplicate ${original.name}`}
                    onClick={() => duplicate.mutateAsync(original.id).catch(note.failed)}
                  />
                  <Button
                    type="text"
                    size="small"
                    icon={<DeleteOutlined />}
                    title="Delete"
                    aria-label={`Delete ${original.name}`}
                    onClick={() => removeOriginal(original)}
                  />
                </ForEditors>
              </div>
            </div>
          </article>
        ))}
        {end}
      </div>
    </div>
  );
}
