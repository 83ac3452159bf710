import { Button, Input } from 'antd';
import { memo } from 'react';
import { useMay } from '../../api/access/workspaces.ts';

/** So many lines are seen of what a cell says. */
const mostLines = 4;

/** What one item says on one picture. */
export const SeriesCell = memo(
  function SeriesCell(props: {
    /** Where it stands: row and column. */
    cell: string;
    label: string;
    text: string;
    /** Whether it is not what the design says. */
    isOwn: boolean;
    onWrite: (text: string) => void;
    onFollow: () => void;
    /** Goes so many rows down. */
    onGo: (down: number) => void;
    /** Takes what was pasted, where it is more than the text of one cell. */
    onPaste: (text: string) => boolean;
  }) {
    const { cell, label, text, isOwn, onWrite, onFollow, onGo, onPaste } = props;
    const mayChange = useMay('editor');
    return (
      <td className="series-cell">
        <Input.TextArea
          data-cell={cell}
          data-own={isOwn}
          size="small"
          aria-label={label}
          autoSize={{ minRows: 1, maxRows: mostLines }}
          maxLength={600}
          placeholder="Left out"
          value={text}
          readOnly={!mayChange}
          onChange={({ target }) => onWrite(target.value)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter' || event.shiftKey || event.nativeEvent.isComposing) return;
            event.preventDefault();
            onGo(1);
          }}
          onPaste={(event) => {
            if (onPaste(event.clipboardData.getData('text/plain'))) event.preventDefault();
          }}
        />
        {isOwn && mayChange && (
          <Button size="small" type="link" aria-label={`${label}: as the design says`} onClick={onFollow}>
            As the design says
          </Button>
        )}
      </td>
    );
  },
  // What it does never changes for the same cell.
  (before, now) =>
    before.cell === now.cell && before.label === now.label && before.text === now.text && before.isOwn === now.isOwn,
);
