import './UploadDock.css';
import { CloseOutlined, RedoOutlined } from '@ant-design/icons';
import type { Original } from '@inkwell/core/model';
import { Button, Progress } from 'antd';
import { useState } from 'react';
import { type Upload, useUploads } from '../../api/library/uploads.ts';
import { PagePicker, pagesWord } from '../pictures/PagePicker.tsx';

const words: Record<Upload['state'], string> = {
  waiting: 'waiting',
  sending: 'sending',
  opening: 'opening and checking',
  done: 'done',
  failed: '',
};

function Dismiss({ upload: { id, file }, onDismiss }: { upload: Upload; onDismiss: (id: number) => void }) {
  return (
    <Button
      size="small"
      type="text"
      aria-label={`Dismiss ${file.name}`}
      icon={<CloseOutlined />}
      onClick={() => onDismiss(id)}
    />
  );
}

/** Says that a file holds more pictures than the one that was taken. */
function MorePages({ original, onPick }: { original: Original; onPick: (original: Original) => void }) {
  return (
    <p className="small" style={{ margin: '4px 0 0' }}>
      It holds {original.pages} {pagesWord(original)}; the first was taken.{' '}
      <Button size="small" onClick={() => onPick(original)}>
        Choose others
      </Button>
    </p>
  );
}

/** The files on their way in, a line each, in the corner of every screen. Gone when nothing is left to say. */
export function UploadDock() {
  const { uploads, cancel, retry, dismiss } = useUploads();
  const [picking, setPicking] = useState<Original | null>(null);
  // What is there says nothing more, unless its file holds other pictures that may have been meant.
  const told = uploads.filter((one) => one.state !== 'done' || (one.original?.pages ?? 1) > 1);
  if (told.length === 0) return null;
  return (
    <section className="upload-dock sheet" aria-label="Uploads">
      {picking && <PagePicker original={picking} onClose={() => setPicking(null)} />}
      {told.map((one) => (
        <div key={one.id} className="upload-line" data-state={one.state}>
          <div className="row spread">
            <strong className="upload-name" title={one.file.name}>
              {one.file.name}
            </strong>
            {one.original ? (
              <Dismiss upload={one} onDismiss={dismiss} />
            ) : one.state === 'failed' ? (
              <span className="row">
                <Button size="small" icon={<RedoOutlined />} onClick={() => retry(one.id)}>
                  Try again
                </Button>
                <Dismiss upload={one} onDismiss={dismiss} />
              </span>
            ) : (
              <span className="row quiet small">
                {words[one.state]}
                <Button size="small" type="text" onClick={() => cancel(one.id)}>
                  Cancel
                </Button>
              </span>
            )}
          </div>
          {one.original ? (
            <MorePages original={one.original} onPick={setPicking} />
          ) : one.state === 'failed' ? (
            <p role="alert" className="upload-failure small">
              {one.failure}
            </p>
          ) : (
            <Progress
              percent={Math.round(one.sent * 100)}
              size="small"
              status={one.state === 'opening' ? 'active' : 'normal'}
              showInfo={false}
            />
          )}
        </div>
      ))}
    </section>
  );
}
