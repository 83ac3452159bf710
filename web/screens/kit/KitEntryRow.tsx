import { CopyOutlined } from '@ant-design/icons';
import { type Delivery, formatLabel, formatWeight } from '@inkwell/core/model';
import { alternativeText, type KitEntry, type KitFile, orderWords, type Post } from '@inkwell/core/posting';
import { Button, Checkbox } from 'antd';
import { type DragEvent, Fragment, useState } from 'react';
import { useMay } from '../../api/access/workspaces.ts';
import { fileUrl } from '../../api/projects/deliveries.ts';

/** In small, in pixels: twice as fine as it is drawn. */
const thumbnailWidth = 300;

/** What a frame was delivered as: its posts with their files, the words to paste, and a box to tick for each post. */
export function KitEntryRow(props: {
  delivery: Delivery;
  entry: KitEntry;
  posted: ReadonlySet<string>;
  onTick: (post: string, posted: boolean) => void;
}) {
  const { delivery, entry, posted, onTick } = props;
  const mayChange = useMay('editor');
  return (
    <article className="kit-entry" aria-label={`${entry.number}. ${entry.place}, ${entry.original}`}>
      <div className="kit-name">
        <span className="kit-number">{entry.number}</span>
        <div>
          <h3>{entry.place}</h3>
          <div className="quiet small">{entry.original}</div>
          {entry.posts.length > 1 && <div className="quiet small">{entry.posts.length} posts, in this order</div>}
        </div>
      </div>
      <div>
        {entry.posts.map((post) => (
          <div
            key={post.key}
            className="kit-post"
            data-posted={posted.has(post.key)}
            data-single={post.files.length === 1}
          >
            <div className="row wrap">
              <Checkbox
                checked={posted.has(post.key)}
                disabled={!mayChange}
                onChange={({ target }) => onTick(post.key, target.checked)}
              >
                Posted
              </Checkbox>
              <span className="quiet small">{orderWords(entry, post)}</span>
            </div>
            <ol className="kit-files">
              {post.files.map((file) => (
                <FileItem key={file.path} delivery={delivery} file={file} />
              ))}
            </ol>
            <Words post={post} />
          </div>
        ))}
      </div>
    </article>
  );
}

/** A file that can be dragged to where it is posted, or downloaded. */
function FileItem({ delivery, file: { line } }: { delivery: Delivery; file: KitFile }) {
  const { file: name, format, width, height, bytes, limitUnit, piece } = line;
  const url = fileUrl(delivery, name);
  const onDragStart = ({ dataTransfer }: DragEvent) => {
    dataTransfer.setData('DownloadURL', `image/${format}:${name}:${location.origin}${url}`);
    dataTransfer.effectAllowed = 'copy';
  };
  return (
    <li className="kit-file">
      <a href={url} download={name} draggable title={`Download ${name}, or drag it`} onDragStart={onDragStart}>
        <img src={fileUrl(delivery, name, thumbnailWidth)} alt={alternativeText(line) || name} loading="lazy" />
      </a>
      <div>
        <div className="kit-file-name small">
          {piece && piece.of > 1 && <strong>{piece.number}. </strong>}
          {name.split('_').map((part, at) => (
            <Fragment key={`${at} ${part}`}>
              {at > 0 && '_'}
              {at > 0 && <wbr />}
              {part}
            </Fragment>
          ))}
        </div>
        <div className="quiet small">
          {width} × {height}, {formatLabel[format]}, {formatWeight(bytes, limitUnit)}
        </div>
      </div>
    </li>
  );
}

/** The words of a post, each with a way to copy it. */
function Words({ post }: { post: Post }) {
  const [first] = post.files;
  const texts = [
    ...[...new Set(post.files.map(({ line }) => alternativeText(line)))].map(
      (text) => ['Alternative text', text] as const,
    ),
    ['Caption', first?.line.posting?.caption ?? ''] as const,
    ['Tags', first?.line.posting?.tags ?? ''] as const,
  ].filter(([, text]) => text !== '');
  if (texts.length === 0) return null;
  return (
    <dl className="kit-words small">
      {texts.map(([name, text]) => (
        <Copied key={`${name} ${text}`} name={name} text={text} />
      ))}
    </dl>
  );
}

function Copied({ name, text }: { name: string; text: string }) {
  const [state, setState] = useState<'new' | 'copied' | 'failed'>('new');
  const copy = () =>
    navigator.clipboard.writeText(text).then(
      () => setState('copied'),
      () => setState('failed'),
    );
  const word = { new: 'Copy', copied: 'Copied', failed: 'Mark the text and copy it by hand' }[state];
  return (
    <>
      <dt>{name}</dt>
      <dd>{text}</dd>
      <dd>
        <Button size="small" type="text" icon={<CopyOutlined />} aria-label={`${word}: ${name}`} onClick={copy}>
          {word}
        </Button>
      </dd>
    </>
  );
}
