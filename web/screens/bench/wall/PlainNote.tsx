import { CloseOutlined } from '@ant-design/icons';
import { plainFinishId, shippedFinishes } from '@inkwell/core/finishing';
import { Button } from 'antd';
import { useState } from 'react';
import { useBench, useBenchStore } from '../state/useBench.ts';

/** Projects of which the note was put away: for as long as the page lives. */
const putAway = new Set<string>();

/** Says where a project's wall is first seen that nothing is sharpened yet, and offers the finishes that would. */
export function PlainNote({ projectId }: { projectId: string }) {
  const store = useBenchStore();
  const project = useBench(({ settings }) => settings.projects[projectId]);
  const isChosenElsewhere = useBench(({ settings }) =>
    [...Object.values(settings.frames), ...Object.values(settings.originals)].some(({ finishId }) => finishId !== null),
  );
  const [isAway, setIsAway] = useState(putAway.has(projectId));
  if (isAway || isChosenElsewhere || project?.finishId !== plainFinishId) return null;
  return (
    <aside className="plain-note small" aria-label="Finish of the project">
      <span>These pictures are only scaled, which makes them softer. A finish brings the detail back:</span>
      {shippedFinishes
        .filter(({ id }) => id !== plainFinishId)
        .map(({ id, name, description }) => (
          <Button
            key={id}
            size="small"
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
        onClick={() => {
          putAway.add(projectId);
          setIsAway(true);
        }}
      />
    </aside>
  );
}
