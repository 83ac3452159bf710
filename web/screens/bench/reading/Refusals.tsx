import type { OpenProject } from '@inkwell/core/model';
import { Button } from 'antd';
import { useMemo } from 'react';
import { usePlaces } from '../../../api/library/specBook.ts';
import { counted } from '../../../parts/counted.ts';
import { type Kind, kinds } from '../state/kinds.ts';
import { useBench, useBenchStore } from '../state/useBench.ts';

/** So many are told one by one. */
const mostShown = 3;

/** What the server has refused to save, and why. It stays as it was typed until it is changed or put back. */
export function Refusals({ project }: { project: OpenProject }) {
  const store = useBenchStore();
  const places = usePlaces(project);
  const phases = useBench((bench) => bench.phases);
  const finishes = useBench((bench) => bench.saved.finishes);
  const nameOf: Record<Kind, (id: string) => string> = {
    finishes: (id) => `The finish ${finishes[id]?.name ?? ''}`,
    projects: () => 'A setting of the project',
    originals: (id) => `A change of ${project.originals.find((one) => one.id === id)?.name ?? 'a picture'}`,
    frames: (id) => {
      const at = places.get(project.frames.find((one) => one.id === id)?.placeId ?? '');
      return at ? `${at.network.name} · ${at.place.name}` : 'A frame';
    },
  };
  const refused = useMemo(
    () =>
      kinds.flatMap((kind) =>
        Object.entries(phases[kind]).flatMap(([id, phase]) =>
          phase.is === 'refused' ? [{ kind, id, reason: phase.reason }] : [],
        ),
      ),
    [phases],
  );
  const others = refused.slice(mostShown);
  return (
    <>
      {refused.slice(0, mostShown).map(({ kind, id, reason }) => (
        <section key={id} role="alert" className="conflict">
          <p>
            <strong>{nameOf[kind](id)} could not be saved.</strong> {reason} Change it, or take the change back.
          </p>
          <Button size="small" type="primary" onClick={() => store.takeTheirs(kind, id)}>
            Take the change back
          </Button>
        </section>
      ))}
      {others.length > 0 && (
        <section role="alert" className="conflict">
          <p>
            <strong>{counted(others.length, 'other change')} could not be saved either.</strong>
          </p>
          <Button
            size="small"
            onClick={() => {
              for (const { kind, id } of others) store.takeTheirs(kind, id);
            }}
          >
            Take {others.length === 1 ? 'it' : 'them all'} back
          </Button>
        </section>
      )}
    </>
  );
}
