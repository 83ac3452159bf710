import './BenchScreen.css';
import { Segmented } from 'antd';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useStore } from 'zustand';
import { ApiError } from '../../api/client.ts';
import { useFinishes } from '../../api/library/finishes.ts';
import { seenOf, useSeen } from '../../api/library/seen.ts';
import { usePlaces } from '../../api/library/specBook.ts';
import { useMeasured, useShownMeasured } from '../../api/projects/measured.ts';
import { useSayWhere } from '../../api/together/useTogether.ts';
import { Empty, Skeleton } from '../../parts/States.tsx';
import { useAddress } from '../../parts/useAddress.ts';
import type { Surround } from '../../theme/palette.ts';
import { useOpenProject } from '../ProjectLayout.tsx';
import { BenchTools } from './BenchTools.tsx';
import { BenchWays, partOf } from './BenchWays.tsx';
import { CloseUp } from './closeUp/CloseUp.tsx';
import { FinishView } from './finish/FinishView.tsx';
import { benchFrames } from './frames/benchFrame.ts';
import { useSettling } from './frames/useSettling.ts';
import { LetteringItems } from './lettering/LetteringItems.tsx';
import { StageItems } from './lettering/StageItems.tsx';
import { StylePanel } from './lettering/StylePanel.tsx';
import { Conflicts, MarkConflict, SettingsConflicts } from './reading/Conflicts.tsx';
import { Reading } from './reading/Reading.tsx';
import { Refusals } from './reading/Refusals.tsx';
import { BenchStage } from './stage/BenchStage.tsx';
import { BenchProvider, useFinishing, useProjectBench } from './state/useBench.ts';
import { OriginalStrip } from './strip/OriginalStrip.tsx';
import { SelectionBar } from './strip/SelectionBar.tsx';
import { StripMenu } from './strip/StripMenu.tsx';
import { useStrip } from './strip/useStrip.ts';
import { WallPart } from './wall/WallPart.tsx';
import { WeightView } from './weight/WeightView.tsx';

/** The original with all outlines on the left, the wall of finished pictures on the right, the reading of one below. */
export function BenchScreen() {
  const project = useOpenProject();
  const places = usePlaces(project);
  const { data: known, isPending } = useFinishes();
  const store = useProjectBench(project, known?.finishes);
  const finishing = useFinishing(store);
  const [search, go] = useAddress();
  const { byFrame, error: unmeasured } = useMeasured(project);
  const { data: looked } = useSeen(project);

  const framed = useMemo(() => {
    const ids = new Set(project.frames.map(({ originalId }) => originalId));
    return project.originals.filter(({ id }) => ids.has(id));
  }, [project]);
  const strip = useStrip(project, framed, looked, byFrame);
  const kept = framed.find((one) => one.id === search.get('original')) ?? framed[0];
  const set = useStore(store, (bench) => (kept ? bench.settings.originals[kept.id] : undefined));
  const original = useMemo(() => kept && { ...kept, ...set }, [kept, set]);
  const seen = original && seenOf(looked, original.id);
  const analysis = seen?.analysis ?? null;
  const settingsOf = useSettling(store, project.frames, places);
  const frames = useMemo(
    () => (original ? benchFrames(project.frames, original, places, finishing, analysis, settingsOf) : []),
    [project.frames, original, places, finishing, analysis, settingsOf],
  );
  useShownMeasured(project, original?.id);
  const measured = useMemo(() => frames.flatMap(({ frame }) => byFrame.get(frame.id) ?? []), [frames, byFrame]);
  const chosen = frames.find((one) => one.frame.id === search.get('frame')) ?? frames[0];
  useSayWhere(project.id, chosen?.frame.id ?? null);
  const surround: Surround = surroundOf(search.get('surround'));
  const view = search.get('view');
  const part = partOf(search.get('part'), view);
  const isLettering = view === 'lettering';
  const [itemId, setItemId] = useState<string | null>(null);
  const onlyFindings = search.get('show') === 'findings';

  const naming = (frameId: string) => ({ frame: frameId, ...(original ? { original: original.id } : {}) });
  /** Opens the close-up of a frame, or goes back to the wall. */
  const closeUp = (frameId: string | null) =>
    go({ ...(frameId ? naming(frameId) : {}), view: frameId ? 'close' : 'wall', part: 'wall' });
  /** Opens a frame's plain and finished picture beside its finish. */
  const openFinish = (frameId: string) => go({ ...naming(frameId), view: 'finish', part: 'wall' });
  /** Opens what a frame's file weighs and what encoding has made of it. */
  const openWeight = (frameId: string) => go({ ...naming(frameId), view: 'weight', part: 'wall' });
  const toggleLettering = () => go({ view: isLettering ? 'wall' : 'lettering', part: 'wall' });
  const choose = (frameId: string) => go(naming(frameId));

  // Without the finishes the bench would not know what its frames look like.
  if (isPending) return <Skeleton height={420} />;
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
      <div className="bench" data-part={part} data-view={view ?? 'wall'}>
        <BenchTools
          frames={frames}
          chosen={chosen}
          onChoose={choose}
          onCloseUp={closeUp}
          onFinish={openFinish}
          onWeight={openWeight}
          isLettering={isLettering}
          onLettering={toggleLettering}
          measured={byFrame}
          isAway={unmeasured instanceof ApiError && unmeasured.offline}
          onlyFindings={onlyFindings}
          onOnlyFindings={(only) => go({ show: only ? 'findings' : 'all' })}
        />
        {view === 'finish' && chosen ? (
          <FinishView
            key={chosen.frame.id}
            one={chosen}
            measured={measured}
            surround={surround}
            onBack={() => closeUp(null)}
          />
        ) : view === 'weight' && chosen ? (
          <WeightView
            key={chosen.frame.id}
            one={chosen}
            measured={measured}
            surround={surround}
            onBack={() => closeUp(null)}
          />
        ) : view === 'close' && chosen ? (
          <CloseUp
            key={chosen.frame.id}
            one={chosen}
            measured={measured}
            surround={surround}
            onBack={() => closeUp(null)}
          />
        ) : (
          <>
            <section className="bench-original" aria-label={`Original ${original.name}`}>
              <BenchStage
                key={original.id}
                original={original}
                frames={frames}
                chosen={chosen}
                seen={seen}
                surround={surround}
                onChoose={choose}
                over={
                  isLettering
                    ? (at) => chosen && <StageItems view={at} one={chosen} measured={measured} onChoose={setItemId} />
                    : null
                }
                below={
                  isLettering ? (
                    <LetteringItems
                      projectId={project.id}
                      original={original}
                      chosenId={itemId}
                      onChoose={setItemId}
                      onExchanged={(id) => go({ original: id, frame: '' })}
                    />
                  ) : null
                }
              />
              {strip.selected.size > 0 && (
                <SelectionBar project={project} selected={strip.selected} seen={looked} onSelect={strip.select} />
              )}
              <div className="bench-strip">
                <StripMenu strip={strip} count={framed.length} />
                <OriginalStrip
                  originals={strip.originals}
                  shownId={original.id}
                  selected={strip.selected}
                  seen={looked}
                  onPress={(id, how) => {
                    if (strip.press(id, how)) go({ original: id, frame: '' });
                  }}
                />
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
            <WallPart
              frames={frames}
              chosenId={chosen?.frame.id}
              measured={measured}
              surround={surround}
              onChoose={choose}
              onCloseUp={closeUp}
              onlyFindings={onlyFindings}
              audience={search.get('scale') === 'shown'}
              onAudience={(audience) => go({ scale: audience ? 'shown' : 'alike' })}
            />
            {isLettering && (
              <StylePanel projectId={project.id} original={original} chosenId={itemId} onChoose={setItemId} />
            )}
          </>
        )}
        <div className="bench-reading">
          <Conflicts frames={frames} />
          <MarkConflict original={original} />
          <SettingsConflicts />
          <Refusals project={project} />
          {chosen && (
            <Reading
              key={chosen.frame.id}
              one={chosen}
              frames={frames}
              measured={measured}
              isPlain={view === 'finish' || view === 'weight'}
              onFinish={() => openFinish(chosen.frame.id)}
              onWeight={() => openWeight(chosen.frame.id)}
            />
          )}
        </div>
        <BenchWays view={view} part={part} onPart={(next) => go({ part: next })} />
      </div>
    </BenchProvider>
  );
}

const surroundOf = (text: string | null): Surround => (text === 'light' || text === 'dark' ? text : 'middle');
