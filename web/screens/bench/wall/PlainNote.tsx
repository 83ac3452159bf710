import { CloseOutlined } from '@ant-design/icons';
import { plainFinishId, shippedFinishes } from '@inkwell/core/finishing';
import type { PictureKind } from '@inkwell/core/model';
import { Button } from 'antd';
import { useMemo, useState } from 'react';
import type { BenchFrame } from '../frames/benchFrame.ts';
import { useBench, useBenchStore } from '../state/useBench.ts';

/** Projects of which the note was put away: for as long as the page lives. */
const putAway = new Set<string>();

/** What suits a kind of picture, and why. */
const suited: Record<PictureKind, { finishId: string; why: string }> = {
  photo: {
    finishId: 'crisp',
    why: 'This looks like a photo: scaling makes it softer, and a finish brings the detail back.',
  },
  scan: { finishId: 'scan', why: 'This looks like a scan: a finish makes its paper white and keeps its lines.' },
  'flat artwork': { finishId: plainFinishId, why: 'This looks like flat artwork: it needs no finish.' },
  mixed: {
    finishId: 'gentle',
    why: 'This looks like photo and drawing in one: a gentle finish brings detail back and leaves flat areas alone.',
  },
};

/** Says where a project's wall is first seen that nothing is sharpened yet, and proposes what suits its pictures. */
export function PlainNote({ frames }: { frames: readonly [BenchFrame, ...BenchFrame[]] }) {
  const [{ frame, seen }] = frames;
  const { projectId } = frame;
  const store = useBenchStore();
  const project = useBench(({ settings }) => settings.projects[projectId]);
  const set = useBench(({ settings }) => settings.frames);
  const originals = useBench(({ settings }) => settings.originals);
  const isChosenElsewhere = useMemo(
    () => [set, originals].some((all) => Object.values(all).some(({ finishId }) => finishId !== null)),
    [set, originals],
  );
  const [isAway, setIsAway] = useState(putAway.has(projectId));
  if (isAway || isChosenElsewhere || project?.finishId !== plainFinishId) return null;
  const proposed = seen && suited[seen.picture];
  const away = () => {
    putAway.add(projectId);
    setIsAway(true);
  };
  const toPng = frames.filter(({ at, frame: { id } }) => {
    return set[id]?.format === 'jpeg' && at.place.formats.includes('png');
  });
  const others = shippedFinishes
    .filter(({ id }) => id !== plainFinishId)
    .sort((a, b) => Number(b.id === proposed?.finishId) - Number(a.id === proposed?.finishId));
  return (
    <aside className="plain-note small" aria-label="Finish of the project">
      <span>
        {proposed?.why ?? 'These pictures are only scaled, which makes them softer. A finish brings the detail back:'}
      </span>
      {seen?.picture === 'flat artwork' && toPng.length > 0 && (
        <Button
          size="small"
          title="PNG keeps flat colours and edges as they are"
          onClick={() => store.setFrames(new Map(toPng.map(({ frame: { id } }) => [id, { format: 'png' }])))}
        >
          Deliver as PNG
        </Button>
      )}
      {others.map(({ id, name, description }) => (
        <Button
          key={id}
          size="small"
          type={id === proposed?.finishId ? 'primary' : 'default'}
          title={description}
          onClick={() => store.set('projects', projectId, { finishId: id })}
        >
          {name}
        </Button>
      ))}
      <Button
        size="small"
        type="text"
        icon={<CloseOutlined />}
        aria-label="Keep them plain"
        title="Keep them plain"
        onClick={away}
      />
    </aside>
  );
}
