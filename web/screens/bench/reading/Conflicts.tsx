import './Conflicts.css';
import { frameDimensions, windowRect } from '@inkwell/core/geometry';
import type { FrameSettings, Original } from '@inkwell/core/model';
import { Button } from 'antd';
import { counted } from '../../../parts/counted.ts';
import { FramePicture } from '../../../parts/pictures/FramePicture.tsx';
import { type BenchFrame, contentAreaFor, windowFor } from '../frames/benchFrame.ts';
import { finishFor } from '../frames/finishing.ts';
import type { ById, Kind } from '../state/kinds.ts';
import type { Phase } from '../state/rowMachine.ts';
import { useBench, useBenchStore } from '../state/useBench.ts';
import { weighingWords } from '../weight/weighingWords.ts';

const pictureWidth = 110;

/** The rows that were changed elsewhere too, as they are there. */
const theirsIn = <Kept, Settings>(phases: ById<Phase<Kept, Settings>>): Kept[] =>
  Object.values(phases).flatMap((phase) => (phase.is === 'conflicted' ? [phase.theirs] : []));

/** Says what was changed here and elsewhere at the same time, and lets one choose between the two. */
export function KeepWhich({ kind, id, children }: { kind: Kind; id: string; children: React.ReactNode }) {
  const store = useBenchStore();
  return (
    <section role="alert" className="conflict">
      <p>{children}</p>
      <Button size="small" type="primary" onClick={() => store.keepMine(kind, id)}>
        Keep yours
      </Button>
      <Button size="small" onClick={() => store.takeTheirs(kind, id)}>
        Take the other
      </Button>
    </section>
  );
}

/** Marks that were changed here and elsewhere at the same time, and the choice between them. */
export function MarkConflict({ original }: { original: Original }) {
  const phase = useBench((bench) => bench.phases.originals[original.id]);
  if (phase?.is !== 'conflicted') return null;
  return (
    <KeepWhich kind="originals" id={original.id}>
      <strong>Marks or words of {original.name} were changed in another window.</strong> Yours (
      {counted(original.marks.length, 'mark')}) are not saved; there are {phase.theirs.marks.length} there. Which do you
      want to keep?
    </KeepWhich>
  );
}

/** Finishes, and what holds for the whole project, that were changed here and elsewhere at the same time. */
export function SettingsConflicts() {
  const finishes = useBench((bench) => bench.phases.finishes);
  const projects = useBench((bench) => bench.phases.projects);
  const all = [
    ...theirsIn(finishes).map(({ id, name }) => ({ kind: 'finishes' as const, id, what: `The finish ${name}` })),
    ...theirsIn(projects).map(({ id }) => ({
      kind: 'projects' as const,
      id,
      what: 'The project settings',
    })),
  ];
  return all.map(({ kind, id, what }) => (
    <KeepWhich key={id} kind={kind} id={id}>
      <strong>{what} was changed in another window.</strong> Your change is not saved. Which version do you want to
      keep?
    </KeepWhich>
  ));
}

/** Frames that were changed here and elsewhere at the same time: both versions, and the choice between them. */
export function Conflicts({ frames }: { frames: BenchFrame[] }) {
  const phases = useBench((bench) => bench.phases.frames);
  const settings = useBench((bench) => bench.settings.frames);
  const store = useBenchStore();
  const both = frames.flatMap((one) => {
    const phase = phases[one.frame.id];
    const mine = settings[one.frame.id];
    return phase?.is === 'conflicted' && mine ? [{ one, mine, theirs: phase.theirs }] : [];
  });
  return both.map(({ one, mine, theirs }) => (
    <section key={one.frame.id} role="alert" className="conflict">
      <p>
        <strong>
          {one.at.network.name} · {one.at.place.name} was changed in another window.
        </strong>{' '}
        Your change is not saved. Which version do you want to keep?
      </p>
      <Version title="Yours" one={one} settings={mine}>
        <Button size="small" type="primary" onClick={() => store.keepMine('frames', one.frame.id)}>
          Keep yours
        </Button>
      </Version>
      <Version title="The other" one={one} settings={theirs}>
        <Button size="small" onClick={() => store.takeTheirs('frames', one.frame.id)}>
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
  const rect = windowRect(window, contentAreaFor(one, settings));
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
