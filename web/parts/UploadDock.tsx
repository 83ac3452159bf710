import './UploadDock.css';
import { CloseOutlined, RedoOutlined } from '@ant-design/icons';
import { Button, Progress } from 'antd';
import { type Upload, useUploads } from '../api/uploads.ts';

const words: Record<Upload['state'], string> = {
  waiting: 'waiting',
  sending: 'sending',
  opening: 'opening and checking',
  done: 'done',
  failed: '',
};

/** The files on their way in, a line each, in the corner of every screen. Gone when nothing is left to say. */
export function UploadDock() {
  const { uploads, cancel, retry, dismiss } = useUploads();
  const told = uploads.filter((one) => one.state !== 'done');
  if (told.length === 0) return null;
  return (
    <section className="upload-dock sheet" aria-label="Pictures on their way in">
      {told.map((one) => (
        <div key={one.id} className="upload-line" data-state={one.state}>
          <div className="row spread">
            <strong className="upload-name" title={one.file.name}>
              {one.file.name}
            </strong>
            {one.state === 'failed' ? (
              <span className="row">
                <Button size="small" icon={<RedoOutlined />} onClick={() => retry(one.id)}>
                  Try again
                </Button>
                <Button
                  size="small"
                  type="text"
                  aria-label={`Dismiss ${one.file.name}`}
                  icon={<CloseOutlined />}
                  onClick={() => dismiss(one.id)}
                />
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
          {one.state === 'failed' ? (
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
