import { shippedFinishes } from '@inkwell/core/finishing';
import { Button, Select } from 'antd';
import type { BenchFrame, FrameState } from '../frames/benchFrame.ts';
import { useBenchStore } from '../state/useBench.ts';
import { TuneField } from './TuneField.tsx';

/** Which finish holds: for the project, for this picture, for this frame; and how much of its second pass, for this frame. */
export function FinishChooser(props: {
  one: BenchFrame;
  state: FrameState;
  onDragBlend: (blend: number | null) => void;
}) {
  const { one, state, onDragBlend } = props;
  const { frame, original, finishing } = one;
  const { settings, finish } = state;
  const store = useBenchStore();
  const finishes = [...shippedFinishes, ...finishing.finishes];
  const options = finishes.map(({ id, name, description }) => ({ value: id, label: name, title: description }));
  const nameOf = (id: string) => finishes.find((one) => one.id === id)?.name ?? 'Plain';
  const above = original.finishId ?? finishing.project.finishId;
  const asAbove = (as: string, id: string) => ({ value: '', label: `As the ${as}: ${nameOf(id)}`, title: '' });
  const own = settings.blend ?? original.blend;
  const hasSecond = finish.treatment.second.amount > 0;
  const blendAll = (blend: number) => {
    store.set('originals', original.id, { blend });
    store.set('frames', frame.id, { blend: null });
  };
  return (
    <div className="finish-chooser">
      <label htmlFor="finish-project">Project</label>
      <Select<string>
        size="small"
        id="finish-project"
        aria-label="Finish of the project"
        value={finishing.project.finishId}
        options={options}
        onChange={(finishId) => store.set('projects', frame.projectId, { finishId })}
      />
      <label htmlFor="finish-original" title={original.name}>
        This picture
      </label>
      <Select<string>
        size="small"
        id="finish-original"
        aria-label="Finish of this picture"
        value={original.finishId ?? ''}
        options={[asAbove('project', finishing.project.finishId), ...options]}
        onChange={(finishId) => store.set('originals', original.id, { finishId: finishId || null })}
      />
      <label htmlFor="finish-frame">This frame</label>
      <Select<string>
        size="small"
        id="finish-frame"
        aria-label="Finish of this frame"
        value={settings.finishId ?? ''}
        options={[asAbove('picture', above), ...options]}
        onChange={(finishId) => store.set('frames', frame.id, { finishId: finishId || null })}
      />
      <div className="finish-blend">
        <TuneField
          label="Second pass"
          hint="How much of the second sharpening is blended in: the one slider that is left to each picture"
          value={finish.treatment.blend}
          least={0}
          most={1}
          step={0.01}
          times={100}
          unit="%"
          disabled={!hasSecond}
          onDrag={onDragBlend}
          onSet={(blend) => store.set('frames', frame.id, { blend })}
        />
        <div className="row small quiet">
          {own === null ? (
            <span>{hasSecond ? `the blend of ${finish.finish.name}` : `${finish.finish.name} has no second pass`}</span>
          ) : (
            <>
              <span>{settings.blend === null ? 'for this picture' : 'for this frame only'}</span>
              {settings.blend !== null && (
                <>
                  <Button size="small" onClick={() => settings.blend !== null && blendAll(settings.blend)}>
                    For all of this picture
                  </Button>
                  <Button size="small" onClick={() => store.set('frames', frame.id, { blend: null })}>
                    Back
                  </Button>
                </>
              )}
              {settings.blend === null && (
                <Button size="small" onClick={() => store.set('originals', original.id, { blend: null })}>
                  Back
                </Button>
              )}
            </>
          )}
        </div>
      </div>
    </div>
  );
}
