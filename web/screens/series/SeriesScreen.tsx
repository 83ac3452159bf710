import './Series.css';
import type { OpenProject } from '@inkwell/core/model';
import { seriesTable } from '@inkwell/core/series';
import { Button } from 'antd';
import { useEffect, useMemo, useState } from 'react';
import { createPortal } from 'react-dom';
import { Link } from 'react-router';
import { ApiError } from '../../api/client.ts';
import { useFinishes } from '../../api/library/finishes.ts';
import { ForEditors } from '../../parts/ForEditors.tsx';
import { Empty, FailureLine, Skeleton } from '../../parts/States.tsx';
import { useLettering, useLetteringHands } from '../bench/lettering/useLettering.ts';
import { SettingsConflicts } from '../bench/reading/Conflicts.tsx';
import { Refusals } from '../bench/reading/Refusals.tsx';
import { SavingTools } from '../bench/SavingTools.tsx';
import { BenchProvider, useProjectBench } from '../bench/state/useBench.ts';
import { useOpenProject } from '../ProjectLayout.tsx';
import { useProjectFrames } from '../projectFrames.ts';
import { SeriesTable } from './SeriesTable.tsx';
import { useWordsItems } from './useWordsItems.ts';
import { wordFindings } from './wordFindings.ts';

/** What is written on each picture of a project, as a table: a row for every picture, a column for every item of its words. */
export function SeriesScreen() {
  const project = useOpenProject();
  const { data: known, isPending } = useFinishes();
  if (isPending) return <Skeleton height={420} />;
  return <OpenSeries project={project} finishes={known?.finishes} />;
}

function OpenSeries({ project, finishes }: { project: OpenProject; finishes: Parameters<typeof useProjectBench>[1] }) {
  const store = useProjectBench(project, finishes);
  return (
    <BenchProvider value={store}>
      <Series project={project} />
    </BenchProvider>
  );
}

function Series({ project }: { project: OpenProject }) {
  const lettering = useLettering();
  const items = useWordsItems(lettering);
  const hands = useLetteringHands(project.id);
  const { frames, error, again } = useProjectFrames(project);
  const findings = useMemo(() => wordFindings(frames), [frames]);
  const [tools, setTools] = useState<HTMLElement | null>(null);
  useEffect(() => setTools(document.getElementById('project-tools')), []);
  const { originals } = project;
  const base = `/projects/${project.id}`;
  const placesOf = useMemo(() => {
    const byOriginal = new Map<string, string[]>();
    for (const { originalId, placeId } of project.frames) {
      byOriginal.set(originalId, [...(byOriginal.get(originalId) ?? []), placeId]);
    }
    return (originalId: string) => byOriginal.get(originalId) ?? [];
  }, [project.frames]);
  const download = () => {
    const table = new Blob([seriesTable(items, originals, placesOf)], { type: 'text/csv' });
    const link = document.createElement('a');
    link.href = URL.createObjectURL(table);
    link.download = 'series.csv';
    link.click();
    URL.revokeObjectURL(link.href);
  };
  return (
    <section className="series" aria-label="Series">
      {tools && createPortal(<SavingTools isAway={error instanceof ApiError && error.offline} />, tools)}
      <div className="row spread wrap series-head">
        <div>
          <h2>What is written on each picture</h2>
          <p className="quiet small">
            A cell in grey says what the design says.{' '}
            <ForEditors>
              Write in it, and this picture says that instead. Leave it empty, and nothing stands there. Enter goes
              down, Shift Enter breaks the line, and rows of a spreadsheet can be pasted.
            </ForEditors>
          </p>
        </div>
        <span className="row">
          <ForEditors>
            <Link to={`${base}/series/table`}>
              <Button type={items.length > 0 && originals.length > 0 ? 'default' : 'primary'}>Read a table …</Button>
            </Link>
          </ForEditors>
          <Button disabled={originals.length === 0} onClick={download}>
            Save as CSV
          </Button>
        </span>
      </div>
      {error !== null && <FailureLine error={error} again={again} />}
      <Refusals project={project} />
      <SettingsConflicts />
      {items.length === 0 || originals.length === 0 ? (
        <div className="page">
          <Empty title={originals.length === 0 ? 'No pictures yet' : 'Nothing is written on these pictures yet'}>
            {originals.length === 0 ? (
              <>
                <Link to={`${base}/choose`}>Choose pictures</Link>, or read a table that names some of your originals.
              </>
            ) : (
              <>
                Add words to the design <Link to={`${base}?view=lettering`}>on the bench</Link>: each of them gets a
                column here, and each picture a row.
              </>
            )}
          </Empty>
        </div>
      ) : (
        <SeriesTable project={project} items={items} hands={hands} findings={findings} placesOf={placesOf} />
      )}
    </section>
  );
}
