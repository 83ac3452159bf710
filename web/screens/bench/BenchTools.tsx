import { QuestionCircleOutlined } from '@ant-design/icons';
import type { Measured } from '@inkwell/core/model';
import { Button, Popover } from 'antd';
import { useEffect, useState } from 'react';
import { createPortal } from 'react-dom';
import { useOpenProject } from '../ProjectLayout.tsx';
import type { BenchFrame } from './frames/benchFrame.ts';
import { useFindingCount } from './frames/useFindingCount.ts';
import { KeyList, useBenchKeys } from './keys.tsx';
import { SavingTools } from './SavingTools.tsx';

/** Undo, redo, the keys and how saving stands, in the project's head line. */
export function BenchTools({
  frames,
  chosen,
  onChoose,
  onCloseUp,
  onFinish,
  onWeight,
  isLettering,
  onLettering,
  measured,
  isAway,
  onlyFindings,
  onOnlyFindings,
}: {
  frames: BenchFrame[];
  chosen: BenchFrame | undefined;
  onChoose: (id: string) => void;
  onCloseUp: (frameId: string | null) => void;
  onFinish: (frameId: string) => void;
  onWeight: (frameId: string) => void;
  isLettering: boolean;
  /** Opens words and emblems, or goes back to the wall. */
  onLettering: () => void;
  measured: ReadonlyMap<string, Measured>;
  /** The program, or its database, does not answer. */
  isAway: boolean;
  onlyFindings: boolean;
  onOnlyFindings: (only: boolean) => void;
}) {
  const project = useOpenProject();
  const { count, isDone } = useFindingCount(project, measured);
  const [listOpen, setListOpen] = useState(false);
  const [target, setTarget] = useState<HTMLElement | null>(null);
  useEffect(() => setTarget(document.getElementById('project-tools')), []);
  useBenchKeys({
    frames,
    chosen,
    onChoose,
    onCloseUp,
    onFinish,
    onWeight,
    onLettering,
    onList: () => setListOpen((open) => !open),
  });
  if (!target) return null;
  return createPortal(
    <>
      <Button
        size="small"
        type={isLettering ? 'primary' : 'text'}
        aria-pressed={isLettering}
        title="Words and emblems over the pictures (T)"
        onClick={onLettering}
      >
        Words
      </Button>
      <Button
        size="small"
        type={onlyFindings ? 'primary' : 'text'}
        aria-pressed={onlyFindings}
        title={onlyFindings ? 'Show all frames on the wall' : 'Show only frames with findings on the wall'}
        onClick={() => onOnlyFindings(!onlyFindings)}
      >
        {count === 0 ? (
          isDone ? (
            'No findings'
          ) : (
            'Findings …'
          )
        ) : (
          <>
            <span className="finding-dot" />
            {count} of {project.frames.length}
            <span className="wide-only">&nbsp;with findings</span>
          </>
        )}
      </Button>
      <SavingTools isAway={isAway} />
      <Popover open={listOpen} onOpenChange={setListOpen} trigger="click" placement="bottomRight" content={<KeyList />}>
        <Button
          size="small"
          type="text"
          className="keys-only"
          icon={<QuestionCircleOutlined />}
          aria-label="Keys"
          title="Keys (?)"
        />
      </Popover>
    </>,
    target,
  );
}
