import './LookOver.css';
import type { Frame, OpenProject, VerdictWord } from '@inkwell/core/model';
import { Button, Segmented } from 'antd';
import { useEffect, useMemo, useRef, useState } from 'react';
import { createPortal } from 'react-dom';
import { Link, useNavigate } from 'react-router';
import { useStore } from 'zustand';
import { useMay } from '../../api/access/workspaces.ts';
import { ApiError } from '../../api/client.ts';
import { useFinishes } from '../../api/library/finishes.ts';
import { usePlaces } from '../../api/library/specBook.ts';
import { counted } from '../../parts/counted.ts';
import { ForEditors } from '../../parts/ForEditors.tsx';
import { Empty, FailureLine, Skeleton } from '../../parts/States.tsx';
import { useAddress } from '../../parts/useAddress.ts';
import { SettingsConflicts } from '../bench/reading/Conflicts.tsx';
import { Refusals } from '../bench/reading/Refusals.tsx';
import { SavingTools } from '../bench/SavingTools.tsx';
import { BenchProvider, useProjectBench } from '../bench/state/useBench.ts';
import { useOpenProject } from '../ProjectLayout.tsx';
import { useProjectFrames } from '../projectFrames.ts';
import { ChosenFrame } from './ChosenFrame.tsx';
import { useOverviewKeys } from './keys.ts';
import { OverviewTable } from './OverviewTable.tsx';
import {
  type Cell,
  cellAt,
  cellOf,
  isShown,
  nextWanted,
  type OverviewFrame,
  overviewOf,
  rowEnd,
  type ShownFrames,
  shownFrames,
} from './overview.ts';
import { VerdictConflicts } from './VerdictConflicts.tsx';

const shownLabels: Record<ShownFrames, string> = {
  all: 'All',
  'to look over': 'To look over',
  'look again': 'Look again',
  'left out': 'Left out',
  'with findings': 'With findings',
};
/** All frames of a project in small, pictures in rows and places in columns, to be looked over by keys. */
export function LookOverScreen() {
  const project = useOpenProject();
  const { data: known, isPending } = useFinishes();
  if (isPending) return <Skeleton height={420} />;
  return <LookOver project={project} finishes={known?.finishes} />;
}

function LookOver({ project, finishes }: { project: OpenProject; finishes: Parameters<typeof useProjectBench>[1] }) {
  const store = useProjectBench(project, finishes);
  const places = usePlaces(project);
  const { frames, isDone, error, again } = useProjectFrames(project);
  const set = useStore(store, (bench) => bench.settings.frames);
  const overview = useMemo(
    () => overviewOf(frames, project.originals, places, (frame: Frame) => (set[frame.id] ?? frame).verdict),
    [frames, project.originals, places, set],
  );
  const all = useMemo(() => overview.rows.flatMap(({ cells }) => cells.filter((cell) => cell !== null)), [overview]);
  const [search, go] = useAddress();
  const shown = shownFrames.find((one) => one === search.get('show')) ?? 'all';
  const chosen = cellOf(overview, search.get('frame')) ?? rowEnd(overview, 0, 'first');
  const chosenFrame = chosen && cellAt(overview, chosen);
  const navigate = useNavigate();
  const mayChange = useMay('editor');
  const grid = useRef<HTMLTableElement>(null);
  const isThere = all.length > 0;
  useEffect(() => {
    if (isThere) grid.current?.focus();
  }, [isThere]);
  const [tools, setTools] = useState<HTMLElement | null>(null);
  useEffect(() => setTools(document.getElementById('project-tools')), []);

  const choose = (cell: Cell | null) => {
    const frame = cell && cellAt(overview, cell);
    if (frame) go({ frame: frame.one.frame.id });
  };
  const benchOf = ({ one }: OverviewFrame) =>
    `/projects/${project.id}?original=${one.original.id}&frame=${one.frame.id}`;
  const open = (cell: Cell) => {
    const frame = cellAt(overview, cell);
    if (frame) navigate(benchOf(frame));
  };
  const judge = (word: VerdictWord) => {
    if (!chosen || !chosenFrame) return;
    const { frame, planHash } = chosenFrame.one;
    // What nobody can have seen yet is not judged.
    if (planHash === null) return;
    const verdict = chosenFrame.verdict === word ? null : { is: word, plan: planHash };
    store.set('frames', frame.id, { verdict });
    if (verdict && mayChange) choose(nextWanted(overview, chosen, isShown[shown === 'all' ? 'to look over' : shown]));
    grid.current?.focus();
  };
  useOverviewKeys(overview, chosen, grid, {
    judge,
    choose,
    open,
    undo: () => store.undo(),
    redo: () => store.redo(),
  });
  if (!isThere) {
    if (!isDone) return <Skeleton height={420} />;
    return (
      <div className="page">
        <Empty title="Nothing to look over yet">
          Choose <Link to={`/projects/${project.id}/choose`}>pictures and places</Link>, and every frame stands here in
          small.
        </Empty>
      </div>
    );
  }
  const unjudged = all.flatMap(({ verdict, worst, one: { frame, planHash, weight } }) =>
    verdict === null && worst === null && weight && planHash ? [{ id: frame.id, plan: planHash }] : [],
  );
  return (
    <BenchProvider value={store}>
      {tools && createPortal(<SavingTools isAway={error instanceof ApiError && error.offline} />, tools)}
      <section className="look-over" aria-label="Look over">
        <div className="look-all">
          <div className="row wrap look-head">
            <Segmented<ShownFrames>
              size="small"
              aria-label="Which frames are gone through"
              value={shown}
              onChange={(show) => go({ show })}
              options={shownFrames.map((value) => ({
                value,
                label: `${shownLabels[value]} ${all.filter(isShown[value]).length}`,
              }))}
            />
            <ForEditors>
              <Button
                size="small"
                disabled={unjudged.length === 0}
                title="Says of every frame that has no findings, and that nobody has looked at, that it is fine"
                onClick={() =>
                  store.setFrames(new Map(unjudged.map(({ id, plan }) => [id, { verdict: { is: 'fine', plan } }])))
                }
              >
                {unjudged.length === 0
                  ? 'Frames without findings are fine'
                  : `${counted(unjudged.length, 'frame')} without findings ${unjudged.length === 1 ? 'is' : 'are'} fine`}
              </Button>
            </ForEditors>
            {!isDone && <span className="quiet small">Still finding out about the rest …</span>}
          </div>
          {error !== null && <FailureLine error={error} again={again} />}
          <Refusals project={project} />
          <SettingsConflicts />
          <VerdictConflicts frames={all} />
          <OverviewTable
            overview={overview}
            shown={shown}
            chosen={chosen}
            grid={grid}
            onChoose={choose}
            onOpen={open}
          />
        </div>
        {chosenFrame && <ChosenFrame frame={chosenFrame} bench={benchOf(chosenFrame)} onJudge={judge} />}
      </section>
    </BenchProvider>
  );
}
