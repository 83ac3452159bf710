import './Conflicts.css';
import { frameDimensions, windowRect } from '@inkwell/core/geometry';
import type { FrameSettings, Original } from '@inkwell/core/model';
import { Button } from 'antd';
import { counted } from '../../parts/counted.ts';
import { FramePicture } from '../../parts/FramePicture.tsx';
import { type BenchFrame, openingFor, windowFor } from './benchFrame.ts';
import { finishFor } from './finishing.ts';
import { useBench, useBenchStore } from './useBench.ts';
import { weighingWords } from './weight/weighingWords.ts';

const pictureWidth = 110;

/** Marks that were changed here and elsewhere at the same time, and the choice between them. */
export function MarkConflict({ original }: { original: Original }) {
  const theirs = useBench((bench) => bench.conflicts.originals[original.id]);
  const store = useBenchStore();
  if (!theirs) return null;
  return (
    <section role="alert" className="conflict">
      <p>
        <strong>Marks or words of {original.name} were changed elsewhere meanwhile.</strong> Yours (
        {counted(original.marks.length, 'mark')}) are not saved; there are {theirs.marks.length} there. Which shall it
        be?
      </p>
      <Button size="small" type="primary" onClick={() => store.getState().keepMine('originals', original.id)}>
        Keep yours
      </Button>
      <Button size="small" onClick={() => store.getState().takeTheirs('originals', original.id)}>
        Take the other
      </Button>
    </section>
  );
}

/** Finishes, and what holds for the whole project, that were changed here and elsewhere at the same time. */
export function SettingsConflicts() {
  const finishes = useBench((bench) => bench.conflicts.finishes);
  const projects = useBench((bench) => bench.conflicts.projects);
  const store = useBenchStore();
  const all = [
    ...Object.values(finishes).map(({ id, name }) => ({ kind: 'finishes' as const, id, what: `The finish ${name}` })),
    ...Object.values(projects).map(({ id }) => ({
      kind: 'projects' as const,
      id,
      what: 'What holds for all files of this project',
    })),
  ];
  return all.map(({ kind, id, what }) => (
    <section key={id} role="alert" className="conflict">
      <p>
        <strong>{what} was changed elsewhere meanwhile.</strong> Your change is not saved. Which one shall it be?
      </p>
      <Button size="small" type="primary" onClick={() => store.getState().keepMine(kind, id)}>
        Keep yours
      </Button>
      <Button size="small" onClick={() => store.getState().takeTheirs(kind, id)}>
        Take the other
      </Button>
    </section>
  ));
}

/** Frames that were changed here and elsewhere at the same time: both versions, and the choice between them. */
export function Conflicts({ frames }: { frames: BenchFrame[] }) {
  const conflicts = useBench((bench) => bench.conflicts.frames);
  const settings = useBench((bench) => bench.settings.frames);
  const store = useBenchStore();
  const both = frames.flatMap((one) => {
    const theirs = conflicts[one.frame.id];
    const mine = settings[one.frame.id];
    return theirs && mine ? [{ one, mine, theirs }] : [];
  });
  return both.map(({ one, mine, theirs }) => (
    <section key={one.frame.id} role="alert" className="conflict">
      <p>
        <strong>
          {one.at.network.name} · {one.at.place.name} was changed elsewhere meanwhile.
        </strong>{' '}
        Your change is not saved. Which one shall it be?
      </p>
      <Version title="Yours" one={one} settings={mine}>
        <Button size="small" type="primary" onClick={() => store.getState().keepMine('frames', one.frame.id)}>
          Keep yours
        </Button>
      </Version>
      <Version title="The other" one={one} settings={theirs}>
        <Button size="small" onClick={() => store.getState().takeTheirs('frames', one.frame.id)}>
          Take the other
        </Button>
      </Version>
    </section>
  ));
}

function Version({
  title,
  one,
  settings,
  children,
}: {
  title: string;
  one: BenchFrame;
  settings: FrameSettings;
  children: React.ReactNode;
}) {
  const window = windowFor(one, settings);
  const rect = windowRect(window, openingFor(one, settings));
  return (
    <div className="row">
      <FramePicture
        frameId={one.frame.id}
        original={one.original}
        place={one.at.place}
        output={frameDimensions(one.at.place, one.original, settings)}
        window={window}
        settings={settings}
        border={finishFor(one, settings).treatment.border}
        planHash={null}
        width={pictureWidth}
      />
      <div className="small">
        <strong>{title}</strong>
        <div>
          left {rect.left.toFixed(0)}, top {rect.top.toFixed(0)}, {rect.width.toFixed(0)} × {rect.height.toFixed(0)} px,{' '}
          {weighingWords(settings)}
        </div>
        {children}
      </div>
    </div>
  );
}
