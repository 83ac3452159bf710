import './DropArea.css';
import type { Original } from '@inkwell/core/model';
import { useQueryClient } from '@tanstack/react-query';
import { type DragEvent, useCallback, useEffect, useRef, useState } from 'react';
import { useUploads } from '../api/library/uploads.ts';
import { ForEditors } from './ForEditors.tsx';

const taken = 'JPEG, PNG, WebP, TIFF, AVIF, HEIC, JPEG XL, BMP, GIF or SVG, up to 400 megapixels and 300 MB a file';

/** An area that takes pictures: dropped on it, picked by a button, or pasted anywhere while it is on the screen. */
export const DropArea = (props: { onOriginal?: (original: Original) => void }) => (
  <ForEditors>
    <Taking {...props} />
  </ForEditors>
);

function Taking({ onOriginal }: { onOriginal?: (original: Original) => void }) {
  const add = useUploads((state) => state.add);
  const client = useQueryClient();
  const input = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);

  const take = useCallback(
    (files: Iterable<File>) =>
      add(files, (original) => {
        void client.invalidateQueries({ queryKey: ['originals'] });
        onOriginal?.(original);
      }),
    [add, client, onOriginal],
  );

  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      const files = [...(event.clipboardData?.files ?? [])];
      if (files.length > 0) take(files);
    };
    document.addEventListener('paste', paste);
    return () => document.removeEventListener('paste', paste);
  }, [take]);

  const drag = (inside: boolean) => (event: DragEvent) => {
    event.preventDefault();
    setOver(inside);
  };
  return (
    <section
      aria-label="Add pictures"
      className={`drop-area ${over ? 'over' : ''}`}
      onDragOver={drag(true)}
      onDragLeave={drag(false)}
      onDrop={(event) => {
        drag(false)(event);
        take(event.dataTransfer.files);
      }}
    >
      <button type="button" className="plain-button drop-button" onClick={() => input.current?.click()}>
        <strong>Drop pictures here, paste one, or choose files</strong>
        <span className="quiet small">{taken}</span>
      </button>
      <input
        ref={input}
        type="file"
        multiple
        hidden
        accept="image/*,.svg,.tif,.tiff,.avif,.heic,.heif,.jxl,.bmp"
        data-testid="file-input"
        onChange={(event) => {
          take(event.target.files ?? []);
          event.target.value = '';
        }}
      />
    </section>
  );
}
