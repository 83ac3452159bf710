import type { RecalledFrame } from '@inkwell/core/model';
import { Button, Popconfirm, Segmented } from 'antd';
import { useState } from 'react';
import { useMay } from '../../api/access/workspaces.ts';
import { thenUrl, useBringBack, useStep } from '../../api/together/history.ts';
import { counted } from '../../parts/counted.ts';
import { ArrivingPicture } from '../../parts/pictures/ArrivingPicture.tsx';
import { FailureLine, Skeleton } from '../../parts/States.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { stepWords } from './stepWords.ts';

const pictureWidth = 480;

/** A step: the frames that look otherwise since, before and after, or all that there were; and the way back to it. */
export function OpenStepView({ projectId, step, isLast }: { projectId: string; step: number; isLast: boolean }) {
  const [which, setWhich] = useState<'touched' | 'all'>('touched');
  const { data, error, refetch } = useStep(projectId, step, which);
  const bringing = useBringBack(projectId);
  const mayChange = useMay('editor');
  const note = useUndoNote();
  const bring = async () => {
    try {
      const { frames, pictures } = await bringing.mutateAsync(step);
      note.told('The project is what it was then', broughtWords(frames, pictures));
    } catch (problem) {
      note.failed(problem);
    }
  };
  return (
    <div className="history-open">
      <div className="row wrap history-head">
        <h2>{data ? stepWords(data.step).join('. ') : 'A step'}</h2>
        <Segmented<'touched' | 'all'>
          size="small"
          aria-label="Which frames are shown"
          value={which}
          onChange={setWhich}
          options={[
            { value: 'touched', label: 'What it changed' },
            { value: 'all', label: 'All frames then' },
          ]}
        />
        {mayChange && !isLast && (
          <Popconfirm
            title="Make the project what it was after this step?"
            description={
              <span className="history-asked">
                What was done since stays in the history, and can be brought back in the same way. What is set on its
                pictures, such as marks, comes back in all projects that show them.
              </span>
            }
            okText="Bring it back"
            cancelText="Leave it"
            onConfirm={bring}
          >
            <Button type="primary" size="small" loading={bringing.isPending}>
              Bring this back …
            </Button>
          </Popconfirm>
        )}
      </div>
      {!data && (error ? <FailureLine error={error} again={() => void refetch()} /> : <Skeleton height={320} />)}
      {data && data.frames.length === 0 && (
        <p className="quiet">{which === 'touched' ? 'No frame looks otherwise since.' : 'There was no frame then.'}</p>
      )}
      {data && data.frames.length > 0 && (
        <ul className="history-frames">
          {data.frames.map((frame) => (
            <Recalled key={frame.id} projectId={projectId} step={step} frame={frame} which={which} />
          ))}
        </ul>
      )}
      {data && data.count > data.frames.length && (
        <p className="quiet small">
          The first {data.frames.length} of {counted(data.count, 'frame')} are shown.
        </p>
      )}
    </div>
  );
}

function broughtWords(frames: number, pictures: number): string {
  if (frames === 0 && pictures === 0) return 'No frame had to be changed for that.';
  const said = [
    ...(frames > 0 ? [counted(frames, 'frame')] : []),
    ...(pictures > 0 ? [`the marks and words of ${counted(pictures, 'picture')}`] : []),
  ];
  return `${said.join(', and ')} came back. That is a step as well.`;
}

function Recalled(props: { projectId: string; step: number; frame: RecalledFrame; which: 'touched' | 'all' }) {
  const { projectId, step, frame, which } = props;
  const { id: frameId, picture, network, place, before, after } = frame;
  const sides = (
    [
      ['before', which === 'all' ? null : before],
      ['after', after],
    ] as const
  ).flatMap(([is, then]) => (then ? [{ is, then }] : []));
  return (
    <li className="sheet history-frame">
      <h3>
        {network} {place}
      </h3>
      <p className="quiet small">{picture}</p>
      <div className="history-sides">
        {sides.map(({ is, then }) => (
          <figure key={is}>
            <ArrivingPicture
              alt={`${picture}, ${network} ${place}, ${is === 'before' ? 'before' : 'after it'}`}
              loading="lazy"
              style={{ aspectRatio: `${then.width} / ${then.height}` }}
              src={thenUrl({ projectId, step, frameId }, is, then.planHash, Math.min(pictureWidth, then.width))}
            />
            {which === 'touched' && <figcaption className="quiet small">{sideWords(is, frame)}</figcaption>}
          </figure>
        ))}
      </div>
    </li>
  );
}

function sideWords(is: 'before' | 'after', { before, after }: RecalledFrame): string {
  if (!before) return 'Added';
  if (!after) return 'Taken out';
  return is === 'before' ? 'Before' : 'After';
}
