import './LookOver.css';
import type { Frame, OpenProject, VerdictWord } from '@inkwell/core/model';
import { Button, Segmented } from 'antd';
import { useEffect, useMemo, useRef, useState } from 'react';
import { createPortal } from 'react-dom';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { useStore } from 'zustand';
import { useFinishes } from '../../api/library/finishes.ts';
import { usePlaces } from '../../api/library/specBook.ts';
import { counted } from '../../parts/counted.ts';
import { isTyping } from '../../parts/isTyping.ts';
import { Empty, FailureLine, Skeleton } from '../../parts/States.tsx';
import { SettingsConflicts } from '../bench/reading/Conflicts.tsx';
import { Refusals } from '../bench/reading/Refusals.tsx';
import { SavingTools } from '../bench/SavingTools.tsx';
import { BenchProvider, useProjectBench } from '../bench/state/useBench.ts';
import { useOpenProject } from '../ProjectLayout.tsx';
import { useProjectFrames } from '../projectFrames.ts';
import { ChosenFrame } from './ChosenFrame.tsx';
import {
  type Cell,
  cellAt,
  cellBeside,
  cellOf,
  type FrameSheet,
  frameSheet,
  isShown,
  nextWanted,
  rowEnd,
  type SheetFrame,
  type ShownFrames,
  shownFrames,
} from './frameSheet.ts';
import { SheetGrid } from './SheetGrid.tsx';

const shownLabels: Record<ShownFrames, string> = {
  all: 'All',
  'to look over': 'To look over',
  'look again': 'Look again',
  'left out': 'Left out',
  'with findings': 'With findings',
};
const keyVerdicts: Record<string, VerdictWord> = { f: 'fine', l: 'look again', x: 'leave out' };
const arrows: Record<string, Cell> = {
  ArrowLeft: { row: 0, column: -1 },
  ArrowRight: { row: 0, column: 1 },
  ArrowUp: { row: -1, column: 0 },
  ArrowDown: { row: 1, column: 0 },
};
/** So many rows are a page. */
const pageRows = 6;

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
  const sheet = useMemo(
    () => frameSheet(frames, project.originals, places, ({ id, verdict }: Frame) => set[id]?.verdict ?? verdict),
    [frames, project.originals, places, set],
  );
  const all = useMemo(() => sheet.rows.flatMap(({ cells }) => cells.filter((cell) => cell !== null)), [sheet]);
  const [search, setSearch] = useSearchParams();
  const shown = shownFrames.find((one) => one === search.get('show')) ?? 'all';
  const chosen = cellOf(sheet, search.get('frame')) ?? rowEnd(sheet, 0, 'first');
  const chosenFrame = chosen && cellAt(sheet, chosen);
  const navigate = useNavigate();
  const grid = useRef<HTMLTableElement>(null);
  const isThere = all.length > 0;
  useEffect(() => {
    if (isThere) grid.current?.focus();
  }, [isThere]);
  const press = useRef<(event: KeyboardEvent) => void>(() => undefined);
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => press.current(event);
    window.addEventListener('keydown', pressed);
    return () => window.removeEventListener('keydown', pressed);
  }, []);
  const [tools, setTools] = useState<HTMLElement | null>(null);
  useEffect(() => setTools(document.getElementById('project-tools')), []);

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
  const go = (values: Record<string, string>) =>
    setSearch(
      (before) => {
        const next = new URLSearchParams(before);
        for (const [name, value] of Object.entries(values)) next.set(name, value);
        return next;
      },
      { replace: true, flushSync: true },
    );
  const choose = (cell: Cell | null) => {
    const frame = cell && cellAt(sheet, cell);
    if (frame) go({ frame: frame.one.frame.id });
  };
  const benchOf = ({ one }: SheetFrame) => `/projects/${project.id}?original=${one.original.id}&frame=${one.frame.id}`;
  const judge = (word: VerdictWord) => {
    if (!chosen || !chosenFrame) return;
    const { frame, planHash } = chosenFrame.one;
    // What is measured when it is said is what was seen.
    const verdict = chosenFrame.verdict === word ? null : { is: word, plan: planHash ?? '' };
    store.set('frames', frame.id, { verdict });
    if (verdict) choose(nextWanted(sheet, chosen, isShown[shown === 'all' ? 'to look over' : shown]));
    grid.current?.focus();
  };
  press.current = (event) => {
    if (isTyping(event.target)) return;
    const key = event.key.toLowerCase();
    const isWithCtrl = event.ctrlKey || event.metaKey;
    if (isWithCtrl && (key === 'z' || key === 'y')) {
      if (key === 'z' && !event.shiftKey) store.undo();
      else store.redo();
      event.preventDefault();
      return;
    }
    // What else goes with Ctrl is the browser's, but for the first and the last frame.
    if (isWithCtrl && key !== 'home' && key !== 'end') return;
    const verdict = keyVerdicts[key];
    if (verdict) judge(verdict);
    else if (!chosen || !(event.target instanceof Node && grid.current?.contains(event.target))) return;
    else if (event.key === 'Enter' && chosenFrame) navigate(benchOf(chosenFrame));
    else {
      const to = cellFor(sheet, chosen, event);
      if (!to) return;
      choose(to);
    }
    event.preventDefault();
  };
  const unjudged = all.filter(({ verdict, worst, one }) => verdict === null && worst === null && one.weight !== null);
  return (
    <BenchProvider value={store}>
      {tools && createPortal(<SavingTools isAway={false} />, tools)}
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
            <Button
              size="small"
              disabled={unjudged.length === 0}
              title="Says of every frame that has no findings, and that nobody has looked at, that it is fine"
              onClick={() =>
                store.setFrames(
                  new Map(
                    unjudged.map(({ one }) => [one.frame.id, { verdict: { is: 'fine', plan: one.planHash ?? '' } }]),
                  ),
                )
              }
            >
              {unjudged.length === 0
                ? 'Frames without findings are fine'
                : `${counted(unjudged.length, 'frame')} without findings ${unjudged.length === 1 ? 'is' : 'are'} fine`}
            </Button>
            {!isDone && <span className="quiet small">Still finding out about the rest …</span>}
          </div>
          {error !== null && <FailureLine error={error} again={again} />}
          <Refusals project={project} />
          <SettingsConflicts />
          <SheetGrid
            sheet={sheet}
            shown={shown}
            chosen={chosen}
            grid={grid}
            onChoose={choose}
            onOpen={(cell) => {
              const frame = cellAt(sheet, cell);
              if (frame) navigate(benchOf(frame));
            }}
          />
        </div>
        {chosenFrame && <ChosenFrame frame={chosenFrame} bench={benchOf(chosenFrame)} onJudge={judge} />}
      </section>
    </BenchProvider>
  );
}

/** Where a key goes from a cell; null for keys that go nowhere. */
function cellFor(sheet: FrameSheet, from: Cell, { key, ctrlKey }: KeyboardEvent): Cell | null {
  const arrow = arrows[key];
  if (arrow) return cellBeside(sheet, from, arrow);
  const last = sheet.rows.length - 1;
  if (key === 'Home') return rowEnd(sheet, ctrlKey ? 0 : from.row, 'first');
  if (key === 'End') return rowEnd(sheet, ctrlKey ? last : from.row, 'last');
  if (key !== 'PageDown' && key !== 'PageUp') return null;
  const row = Math.min(last, Math.max(0, from.row + (key === 'PageDown' ? pageRows : -pageRows)));
  return cellAt(sheet, { row, column: from.column }) ? { row, column: from.column } : rowEnd(sheet, row, 'first');
}
