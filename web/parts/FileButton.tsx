import { Button, type ButtonProps } from 'antd';
import { useRef } from 'react';
import { ForEditors } from './ForEditors.tsx';

/**
 * A button that takes one file, for those who may change something.
 *
 * @param props what a button has; `name` says what the file is, `accept` which are offered
 */
export function FileButton(
  props: Pick<ButtonProps, 'size' | 'icon' | 'loading' | 'title' | 'children'> & {
    name: string;
    accept: string;
    onFile: (file: File) => void;
  },
) {
  const { name, accept, onFile, ...button } = props;
  const input = useRef<HTMLInputElement>(null);
  return (
    <ForEditors>
      <Button {...button} onClick={() => input.current?.click()} />
      <input
        ref={input}
        type="file"
        accept={accept}
        aria-label={name}
        className="visually-hidden"
        tabIndex={-1}
        onChange={({ target }) => {
          const [chosen] = target.files ?? [];
          if (chosen) onFile(chosen);
          // The same file can be chosen again.
          target.value = '';
        }}
      />
    </ForEditors>
  );
}
