import type { OpenProject } from '@inkwell/core/model';
import { Button } from 'antd';
import { usePlaces } from '../../../api/library/specBook.ts';
import { type Kind, kinds } from '../state/kinds.ts';
import { useBench, useBenchStore } from '../state/useBench.ts';

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
  return kinds.flatMap((kind) =>
    Object.entries(phases[kind]).map(([id, phase]) =>
      phase.is === 'refused' ? (
        <section key={id} role="alert" className="conflict">
          <p>
            <strong>{nameOf[kind](id)} could not be saved.</strong> {phase.reason} Change it, or take the change back.
          </p>
          <Button size="small" type="primary" onClick={() => store.takeTheirs(kind, id)}>
            Take the change back
          </Button>
        </section>
      ) : null,
    ),
  );
}
