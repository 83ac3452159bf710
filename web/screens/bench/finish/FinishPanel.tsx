import { noTone, tonePoints } from '@inkwell/core/finishing';
import { type FinishFile, FinishFileSchema, type FinishSettings, type Treatment } from '@inkwell/core/model';
import { useQuery } from '@tanstack/react-query';
import { App, Button, Input } from 'antd';
import { useMay } from '../../../api/access/workspaces.ts';
import { sentenceOf } from '../../../api/client.ts';
import { finishFileUrl, useFinishActions, useFinishes } from '../../../api/library/finishes.ts';
import { countedUrl, countedWidth, proofUrl } from '../../../api/projects/frames.ts';
import { ForEditors } from '../../../parts/ForEditors.tsx';
import { NameField } from '../../../parts/fields/NameField.tsx';
import { ImportButton } from '../../../parts/ImportButton.tsx';
import { useUndoNote } from '../../../parts/useUndoNote.tsx';
import { theFinisher } from '../../../workers/theFinisher.ts';
import type { BenchFrame, FrameState } from '../frames/benchFrame.ts';
import { useBench, useBenchStore } from '../state/useBench.ts';
import { BorderFields } from './BorderFields.tsx';
import { Figures } from './Figures.tsx';
import { FinishChooser } from './FinishChooser.tsx';
import { Histogram } from './Histogram.tsx';
import { TreatmentFields } from './TreatmentFields.tsx';
import { framesWith, touchedWords } from './touched.ts';
import { UnusedFinishes } from './UnusedFinishes.tsx';

const finishFindings = new Set(['over-sharpened', 'noise lifted', 'clipped', 'finish left out']);

/** Chooses, judges and edits the finish of a frame. */
export function FinishPanel(props: {
  one: BenchFrame;
  state: FrameState;
  /** A treatment on its way; null when the hand has let go. */
  onDraft: (treatment: Treatment | null) => void;
}) {
  const { one, state, onDraft } = props;
  const { frame, original } = one;
  const { finish, carried, figures } = state;
  const { treatment } = finish;
  const store = useBenchStore();
  const actions = useFinishActions();
  const note = useUndoNote();
  const { notification } = App.useApp();
  const { data: known } = useFinishes();
  const plain = useHistogram(state.plainHash && countedUrl(frame.id, state.plainHash, state.output));
  const finished = useHistogram(state.savedHash && proofUrl(frame.id, state.savedHash, countedWidth(state.output)));
  const points = plain ? tonePoints(treatment.tone, plain) : null;
  const { id, name, description, shipped } = finish.finish;

  const setFinish = (change: Partial<FinishSettings>) => store.set('finishes', id, change);
  /** Gives a finish to whoever the one that holds now comes from. */
  const choose = (finishId: string) => {
    if (finish.from === 'frame') store.set('frames', frame.id, { finishId });
    else if (finish.from === 'original') store.set('originals', original.id, { finishId });
    else store.set('projects', frame.projectId, { finishId });
  };
  const makeOwn = () =>
    actions.add.mutate(
      { name: `My ${name.toLowerCase()}`, description, treatment: finish.finish.treatment },
      { onSuccess: (made) => choose(made.id), onError: note.failed },
    );
  const read = (file: FinishFile) =>
    actions.read.mutate(file, {
      onSuccess: (made) => {
        choose(made.id);
        notification.success({ title: `${made.name} was read and is chosen now.` });
      },
      onError: (error) => notification.error({ title: 'Not read', description: sentenceOf(error) }),
    });
  const { blend: _, ...numbers } = treatment;
  const kept = { ...numbers, blend: finish.finish.treatment.blend };
  const cautions = state.findings.filter(({ kind }) => finishFindings.has(kind));
  const less = carried && carried.oversize < treatment.oversize - 0.005 ? carried.oversize : null;
  const bench = useBench((all) => all);
  const here = framesWith(id, bench);
  const uses = Math.max(here, known?.uses[id] ?? 0);
  const unused = one.finishing.finishes.filter(
    (other) => framesWith(other.id, bench) === 0 && (known?.uses[other.id] ?? 0) === 0,
  );
  const isFixed = !useMay('editor') || shipped;
  return (
    <aside className="compare-panel finish-panel" aria-label="Finish">
      <FinishChooser
        one={one}
        state={state}
        onDragBlend={(blend) => onDraft(blend === null ? null : { ...treatment, blend })}
      />
      <Histogram
        plain={plain}
        finished={carried ? finished : undefined}
        points={points && points !== noTone ? points : null}
      />
      <Figures figures={figures} isFinished={carried !== null} />
      {less !== null && (
        <p className="small">
          Sharpened at {less.toFixed(2)} times its dimensions instead of {treatment.oversize}: the original has no more
          pixels here.
        </p>
      )}
      {cautions.length > 0 && (
        <ul className="finish-cautions small" aria-label="Cautions">
          {cautions.map(({ kind, text, fix }) => (
            <li key={kind} data-level="caution">
              <strong>Caution</strong> {text}{' '}
              {fix && (
                <Button size="small" onClick={() => store.set('frames', frame.id, fix.change)}>
                  {fix.label}
                </Button>
              )}
            </li>
          ))}
        </ul>
      )}
      <section className="finish-own" aria-label="The finish itself">
        <div className="row spread">
          <h2 className="minor-title">
            <NameField name={name} what="finish" onRename={isFixed ? null : (next) => setFinish({ name: next })} />
          </h2>
          <span className="row">
            <Button size="small" href={finishFileUrl(id)} download>
              Export
            </Button>
            <ImportButton schema={FinishFileSchema} what="finish" onRead={read} />
          </span>
        </div>
        {isFixed ? (
          <p className="small">{description}</p>
        ) : (
          <Input.TextArea
            size="small"
            autoSize={{ minRows: 1, maxRows: 3 }}
            aria-label="What this finish is for"
            placeholder="What this finish is for"
            maxLength={300}
            key={description}
            defaultValue={description}
            onBlur={({ target }) => setFinish({ description: target.value.trim() })}
          />
        )}
        {shipped ? (
          <div className="row small wrap">
            <span className="quiet">It comes with the program and stays as it is.</span>
            <ForEditors>
              <Button size="small" type="primary" loading={actions.add.isPending} onClick={makeOwn}>
                Make my own copy
              </Button>
            </ForEditors>
          </div>
        ) : (
          <p className="quiet small">{touchedWords(here, uses)}</p>
        )}
        <TreatmentFields
          treatment={kept}
          disabled={isFixed}
          points={points}
          onDrag={(next) => onDraft(next && { ...next, blend: treatment.blend })}
          onSet={(next) => setFinish({ treatment: next })}
        />
        <BorderFields
          border={treatment.border}
          original={original}
          disabled={isFixed}
          isCut={state.grid !== null}
          onSet={(border) => setFinish({ treatment: { ...kept, border } })}
        />
      </section>
      <ForEditors>
        <UnusedFinishes finishes={unused} />
      </ForEditors>
    </aside>
  );
}

/** The histogram of a picture, counted in the worker. */
function useHistogram(url: string | null) {
  const { data } = useQuery({
    queryKey: ['histogram', url],
    queryFn: () => theFinisher().histogram(url ?? ''),
    enabled: url !== null,
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
  return data;
}
