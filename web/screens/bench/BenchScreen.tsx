import './BenchScreen.css';
import { QuestionCircleOutlined, RedoOutlined, UndoOutlined } from '@ant-design/icons';
import { Button, Popover, Segmented, Slider } from 'antd';
import { useEffect, useMemo, useState } from 'react';
import { createPortal } from 'react-dom';
import { Link, useSearchParams } from 'react-router';
import { useStore } from 'zustand';
import { previewUrl } from '../../api/originals.ts';
import { useWeights } from '../../api/projects.ts';
import { usePlaces } from '../../api/specBook.ts';
import { movingPreviewWidth } from '../../parts/FramePicture.tsx';
import { Empty } from '../../parts/States.tsx';
import { OriginalStage } from '../../stage/OriginalStage.tsx';
import { type Surround, surrounds } from '../../theme/palette.ts';
import { useOpenProject } from '../ProjectLayout.tsx';
import { type BenchFrame, benchFrames } from './benchFrame.ts';
import { step } from './benchState.ts';
import { Conflicts } from './Conflicts.tsx';
import { KeyList, useBenchKeys } from './keys.tsx';
import { Reading } from './Reading.tsx';
import { BenchProvider, useBench, useBenchStore, useProjectBench } from './useBench.ts';
import { Wall } from './Wall.tsx';

const defaultWallScale = 150;

/** The original with all outlines on the left, the wall of finished pictures on the right, the reading of one below. */
export function BenchScreen() {
  const project = useOpenProject();
  const places = usePlaces();
  const store = useProjectBench(project);
  const [search, setSearch] = useSearchParams();
  const { data: weights } = useWeights(project.id);

  const framed = project.originals.filter((original) =>
    project.frames.some((frame) => frame.originalId === original.id),
  );
  const original = framed.find((one) => one.id === search.get('original')) ?? framed[0];
  const frames = useMemo(
    () => (original ? benchFrames(project.frames, original, places) : []),
    [project.frames, original, places],
  );
  const chosen = frames.find((one) => one.frame.id === search.get('frame')) ?? frames[0];
  const surround: Surround = surroundOf(search.get('surround'));

  const go = (values: Record<string, string>) =>
    setSearch(
      (before) => {
        const next = new URLSearchParams(before);
        for (const [name, value] of Object.entries(values)) next.set(name, value);
        return next;
      },
      { replace: true },
    );
  const choose = (frameId: string) => go({ frame: frameId, ...(original ? { original: original.id } : {}) });

  if (!original) {
    return (
      <div className="page">
        <Empty title="Nothing on the bench yet">
          Choose <Link to={`/projects/${project.id}/choose`}>pictures and places</Link> for this project, and every
          frame hangs here.
        </Empty>
      </div>
    );
  }
  return (
    <BenchProvider value={store}>
      <div className="bench">
        <Tools frames={frames} chosen={chosen} onChoose={choose} />
        <section className="bench-original" aria-label={`Original ${original.name}`}>
          <div className="bench-stage" style={{ background: surrounds[surround] }}>
            <ChosenStage original={original} frames={frames} chosen={chosen} onChoose={choose} />
          </div>
          <div className="bench-strip">
            <div className="row" role="tablist" aria-label="Originals" style={{ gap: 6, overflowX: 'auto' }}>
              {framed.map((one) => (
                <button
                  key={one.id}
                  type="button"
                  role="tab"
                  aria-selected={one.id === original.id}
                  aria-label={one.name}
                  title={one.name}
                  className="plain-button bench-thumb"
                  onClick={() => go({ original: one.id, frame: '' })}
                >
                  <img alt="" src={previewUrl(one, 160)} />
                </button>
              ))}
            </div>
            <Segmented<Surround>
              size="small"
              aria-label="Surround"
              value={surround}
              onChange={(value) => go({ surround: value })}
              options={[
                { value: 'light', label: 'Light' },
                { value: 'middle', label: 'Middle' },
                { value: 'dark', label: 'Dark' },
              ]}
            />
          </div>
        </section>
        <WallPart frames={frames} chosen={chosen} weights={weights} surround={surround} onChoose={choose} />
        <div className="bench-reading">
          <Conflicts frames={frames} />
          {chosen && <Reading key={chosen.frame.id} one={chosen} weights={weights} />}
        </div>
      </div>
    </BenchProvider>
  );
}

const surroundOf = (text: string | null): Surround => (text === 'light' || text === 'dark' ? text : 'middle');

function ChosenStage({
  original,
  frames,
  chosen,
  onChoose,
}: {
  original: BenchFrame['original'];
  frames: BenchFrame[];
  chosen: BenchFrame | undefined;
  onChoose: (id: string) => void;
}) {
  const store = useBenchStore();
  const settings = useBench((bench) => bench.settings);
  const moving = useBench((bench) => bench.moving);
  const outlines = useMemo(
    () =>
      frames.flatMap(({ frame, output }) => {
        const set = settings[frame.id];
        return set ? [{ id: frame.id, window: set.window, output }] : [];
      }),
    [frames, settings],
  );
  const resting = outlines.find((one) => one.id === chosen?.frame.id);
  const shown = resting && moving?.frameId === resting.id ? { ...resting, window: moving.window } : resting;
  return (
    <OriginalStage
      original={original}
      imageUrl={previewUrl(original, movingPreviewWidth)}
      outlines={outlines}
      chosen={shown}
      onChoose={onChoose}
      onMove={(window) => resting && store.getState().move(resting.id, window)}
      onRest={() => store.getState().rest()}
    />
  );
}

function WallPart({
  frames,
  chosen,
  weights,
  surround,
  onChoose,
}: {
  frames: BenchFrame[];
  chosen: BenchFrame | undefined;
  weights: Parameters<typeof Wall>[0]['weights'];
  surround: Surround;
  onChoose: (id: string) => void;
}) {
  const [scale, setScale] = useState(defaultWallScale);
  return (
    <section
      className="bench-wall"
      aria-label="Wall"
      style={{ background: surrounds[surround] }}
      data-surround={surround}
    >
      <Wall frames={frames} chosenId={chosen?.frame.id} weights={weights} scale={scale} onChoose={onChoose} />
      <div className="wall-scale">
        <span className="visually-hidden" id="wall-scale">
          Scale of the wall
        </span>
        <Slider
          min={90}
          max={320}
          value={scale}
          onChange={setScale}
          tooltip={{ open: false }}
          ariaLabelledByForHandle="wall-scale"
        />
      </div>
    </section>
  );
}

/** Undo, redo, the keys and how saving stands, in the project's head line. */
function Tools({
  frames,
  chosen,
  onChoose,
}: {
  frames: BenchFrame[];
  chosen: BenchFrame | undefined;
  onChoose: (id: string) => void;
}) {
  const store = useBenchStore();
  const connection = useBench((bench) => bench.connection);
  const back = useStore(store.temporal, (history) => history.pastStates.length);
  const forward = useStore(store.temporal, (history) => history.futureStates.length);
  const [listOpen, setListOpen] = useState(false);
  const [target, setTarget] = useState<HTMLElement | null>(null);
  useEffect(() => setTarget(document.getElementById('project-tools')), []);
  useBenchKeys({ frames, chosen, onChoose, onList: () => setListOpen((open) => !open) });
  if (!target) return null;
  const said = { fine: 'Saved', saving: 'Saving …', offline: 'Not connected: changes are kept here and sent later' }[
    connection
  ];
  return createPortal(
    <>
      <span role="status" className={`small ${connection === 'offline' ? 'bench-offline' : 'quiet'}`}>
        {said}
      </span>
      <Button
        size="small"
        type="text"
        icon={<UndoOutlined />}
        disabled={back === 0}
        aria-label="Undo"
        title="Undo (Ctrl Z)"
        onClick={() => step(store, 'undo')}
      />
      <Button
        size="small"
        type="text"
        icon={<RedoOutlined />}
        disabled={forward === 0}
        aria-label="Redo"
        title="Redo (Ctrl Shift Z)"
        onClick={() => step(store, 'redo')}
      />
      <Popover open={listOpen} onOpenChange={setListOpen} trigger="click" placement="bottomRight" content={<KeyList />}>
        <Button size="small" type="text" icon={<QuestionCircleOutlined />} aria-label="Keys" title="Keys (?)" />
      </Popover>
    </>,
    target,
  );
}
