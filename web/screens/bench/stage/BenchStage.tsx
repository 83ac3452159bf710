import './BenchStage.css';
import {
  boundsOf,
  levellingTurn,
  type Point,
  type Rect,
  spreadOf,
  turnParts,
  turnTo,
  type Viewport,
} from '@inkwell/core/geometry';
import { type Mark, marksLimit, type Original, type Proposal, type Seen, type Trim } from '@inkwell/core/model';
import { openProposals } from '@inkwell/core/proposing';
import { type ReactNode, useCallback, useEffect, useMemo, useState } from 'react';
import { previewUrl } from '../../../api/library/originals.ts';
import { movingPreviewWidth } from '../../../parts/pictures/FramePicture.tsx';
import { useUndoNote } from '../../../parts/useUndoNote.tsx';
import { OriginalStage } from '../../../stage/OriginalStage.tsx';
import type { Decision } from '../../../stage/ProposalTag.tsx';
import { ProposalTags } from '../../../stage/ProposalTags.tsx';
import type { Tool } from '../../../stage/tools.ts';
import { type Surround, surrounds } from '../../../theme/palette.ts';
import { type BenchFrame, contentAreaFor, windowFor } from '../frames/benchFrame.ts';
import { composedFrom } from '../frames/composed.ts';
import { withMoved } from '../state/moving.ts';
import { useBench, useBenchStore } from '../state/useBench.ts';
import { MarkPanel } from './MarkPanel.tsx';
import { decided, newMark } from './marks.ts';
import { SeenLine } from './SeenLine.tsx';
import { StageTools } from './StageTools.tsx';
import { TrimPanel, wholePixels } from './TrimPanel.tsx';

const fullTitle = `${marksLimit} marks are the most`;
const fullWords = 'What has no room stays proposed. Delete marks that are not needed any more, or dismiss it.';

/** The left side of the bench: the original, the outlines of its frames, its marks, and the tools for them. */
export function BenchStage(props: {
  original: Original;
  frames: BenchFrame[];
  chosen: BenchFrame | undefined;
  /** Undefined while it is not known what was seen in it. */
  seen: Seen | undefined;
  surround: Surround;
  onChoose: (id: string) => void;
  /** What stands under the picture instead of its marks. */
  below: ReactNode;
  /** What lies over the picture instead of what was seen in it. */
  over: ((view: Viewport) => ReactNode) | null;
}) {
  const { original, frames, chosen, seen, surround, onChoose, below, over } = props;
  const store = useBenchStore();
  const note = useUndoNote();
  const settings = useBench((bench) => bench.settings.frames);
  const moving = useBench((bench) => bench.moving);
  const [tool, setTool] = useState<Tool>('frame');
  const [selected, setSelected] = useState<string | null>(null);
  /** While a trim is being chosen: what is proposed, or set by hand. */
  const [trimming, setTrimming] = useState<{ trim: Trim | null } | null>(null);
  const draftTrim = useCallback((trim: Trim | null) => setTrimming({ trim }), []);

  const outlines = useMemo(
    () =>
      frames.flatMap((one) => {
        const set = settings[one.frame.id];
        const output = set && contentAreaFor(one, set);
        if (!output) return [];
        // While a mark is moved, frames follow it.
        const composed = composedFrom(original, one.seen, one.finishing.project.composing);
        const window = windowFor({ ...one, original: composed }, set);
        return [{ id: one.frame.id, window, output, grid: spreadOf(one.at.place, set) }];
      }),
    [frames, settings, original],
  );
  const resting = outlines.find((one) => one.id === chosen?.frame.id);
  const backing = chosen ? (settings[chosen.frame.id]?.backing ?? null) : null;
  const bounds = useMemo(() => boundsOf(original, backing), [original, backing]);
  const shown = resting && {
    ...resting,
    bounds,
    window: moving?.kind === 'window' && moving.frameId === resting.id ? moving.window : resting.window,
  };
  const drafted = useMemo(
    () => ({
      ...original,
      marks: withMoved(original.marks, moving),
      trim: trimming ? trimming.trim : original.trim,
    }),
    [original, moving, trimming],
  );

  const proposals = useMemo(() => openProposals(original, seen?.analysis ?? null), [original, seen]);
  const decide = (some: readonly Proposal[], decision: Decision) => {
    const change = decided(original, some, decision);
    if (change.decided.length < original.decided.length + some.length) note.warned(fullTitle, fullWords);
    store.set('originals', original.id, change);
  };

  const setMarks = (marks: Mark[]) => store.set('originals', original.id, { marks });
  const moveMark = (id: string, region: Rect) => store.moveMark(original.id, id, region);
  /** Arrow keys come one after the other; after the last the mark rests. */
  const moveMarkByKey = (id: string, region: Rect) => {
    moveMark(id, region);
    store.commitMoveSoon();
  };
  useEffect(() => () => store.commitMove(), [store]);

  // Esc puts a tool down, before it means anything else.
  const putDown = tool !== 'frame' || trimming !== null;
  useEffect(() => {
    if (!putDown) return;
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== 'Escape' || event.defaultPrevented) return;
      event.preventDefault();
      setTool('frame');
      setTrimming(null);
    };
    document.addEventListener('keydown', onKey, { capture: true });
    return () => document.removeEventListener('keydown', onKey, { capture: true });
  }, [putDown]);

  const draw = (how: Tool, region: Rect, from: Point, to: Point) => {
    setTool('frame');
    if (how === 'level') {
      if (!resting) return;
      const turn = levellingTurn(from, to, turnParts(resting.window.turn).quarter);
      const turned = turnTo(resting.window, turn, bounds, resting.output);
      store.set('frames', resting.id, { window: turned });
      return;
    }
    const mark = newMark(how === 'avoid' ? 'avoid' : 'keep', region, original);
    setMarks([...drafted.marks, mark]);
    setSelected(mark.id);
  };

  return (
    <>
      <div className="bench-stage" style={{ background: surrounds[surround] }}>
        <OriginalStage
          original={drafted}
          imageUrl={previewUrl(original, movingPreviewWidth)}
          outlines={outlines}
          chosen={shown}
          tool={tool}
          selectedMark={selected}
          onChoose={onChoose}
          onMove={(window) => resting && store.move(resting.id, window)}
          onRest={() => store.commitMove()}
          onRestSoon={() => store.commitMoveSoon()}
          onDraw={draw}
          onSelectMark={setSelected}
          onChangeMark={moveMark}
          onTrim={trimming ? (region) => draftTrim(wholePixels(region)) : null}
          over={(view) =>
            tool === 'frame' &&
            !trimming &&
            (over?.(view) ?? (
              <ProposalTags
                view={view}
                original={original}
                proposals={proposals}
                onDecide={(one, decision) => decide([one], decision)}
              />
            ))
          }
        />
        <StageTools
          tool={tool}
          onTool={setTool}
          trimming={trimming !== null}
          onTrim={() => setTrimming(trimming ? null : { trim: original.trim })}
          onComposeAll={
            (chosen?.original.marks.length ?? 0) > 0
              ? () => store.setFrames(new Map(frames.map(({ frame }) => [frame.id, { composed: true }])))
              : null
          }
        />
      </div>
      {below ?? (
        <>
          <MarkPanel
            original={drafted}
            selected={selected}
            tool={tool}
            onTool={setTool}
            onSelect={setSelected}
            onMarks={setMarks}
            onMove={moveMarkByKey}
          >
            {trimming && (
              <TrimPanel
                original={original}
                draft={trimming.trim}
                onDraft={draftTrim}
                onAccept={(trim) => {
                  store.set('originals', original.id, { trim });
                  setTrimming(null);
                }}
                onClose={() => setTrimming(null)}
              />
            )}
          </MarkPanel>
          {chosen && (
            <SeenLine
              projectId={chosen.frame.projectId}
              original={original}
              frames={frames}
              seen={seen}
              proposals={proposals}
              onDecide={decide}
            />
          )}
        </>
      )}
    </>
  );
}
