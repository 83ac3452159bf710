import { shippedFinishes } from '@inkwell/core/finishing';
import { aimNames, namedAims, type OpenProject, type ProposalKind, type Seen } from '@inkwell/core/model';
import { Button, Dropdown } from 'antd';
import { useNavigate } from 'react-router';
import { seenOf } from '../../../api/library/seen.ts';
import { counted } from '../../../parts/counted.ts';
import { useBench, useBenchStore } from '../state/useBench.ts';
import { type AimChoice, aimWords } from '../weight/aims.ts';
import { aimAt, keepSeen, laidOver, type Selected, seenKinds, straightenSeen } from './toSelected.ts';

const everyWords: Record<ProposalKind, string> = {
  face: 'Every face',
  person: 'Every person',
  animal: 'Every animal',
  thing: 'Every thing',
  words: 'All words',
  'stands out': 'All that stands out',
};

/** What can be done to all originals that are selected in the strip, each in one step of undo. */
export function SelectionBar(props: {
  project: OpenProject;
  selected: ReadonlySet<string>;
  seen: readonly Seen[] | undefined;
  onSelect: (selected: ReadonlySet<string>) => void;
}) {
  const { project, selected: ids, seen, onSelect } = props;
  const store = useBenchStore();
  const navigate = useNavigate();
  const finishes = useBench(({ saved }) => saved.finishes);
  const lettering = useBench(({ settings }) => settings.projects[project.id]?.lettering ?? []);
  const originals = useBench(({ settings }) => settings.originals);
  const frames = useBench(({ settings }) => settings.frames);
  const selected: Selected = {
    ids,
    settingsOf: (id) => originals[id],
    analysisOf: (id) => seenOf(seen, id)?.analysis ?? null,
    frames: project.frames,
    frameSettings: (id) => frames[id],
  };
  const kinds = [...seenKinds(selected)];
  const leaning = straightenSeen(selected);
  const setFinish = (finishId: string | null) =>
    store.setMany({ originals: new Map([...ids].map((id) => [id, { finishId }])) });
  return (
    <section className="selection-bar small" aria-label="What is selected">
      <strong role="status">{counted(ids.size, 'picture')} selected</strong>
      <Button size="small" onClick={() => navigate(`/projects/${project.id}/choose`, { state: { ticked: [...ids] } })}>
        Places …
      </Button>
      <Dropdown
        trigger={['click']}
        menu={{
          items: [
            { key: '', label: 'As the project', onClick: () => setFinish(null) },
            ...[...shippedFinishes, ...Object.values(finishes)].map(({ id, name }) => ({
              key: id,
              label: name,
              onClick: () => setFinish(id),
            })),
          ],
        }}
      >
        <Button size="small">Finish</Button>
      </Dropdown>
      <Dropdown
        trigger={['click']}
        menu={{
          items: (['place', ...aimNames] satisfies AimChoice[]).map((choice) => ({
            key: choice,
            label: aimWords[choice],
            onClick: () => store.setMany({ frames: aimAt(selected, choice === 'place' ? null : namedAims[choice]) }),
          })),
        }}
      >
        <Button size="small">Aim</Button>
      </Dropdown>
      {kinds.length > 0 && (
        <Dropdown
          trigger={['click']}
          menu={{
            items: kinds.map(([kind, count]) => ({
              key: kind,
              label: `${everyWords[kind]} (${count})`,
              onClick: () => store.setMany({ originals: keepSeen(selected, kind) }),
            })),
          }}
        >
          <Button size="small" title="What was seen becomes a mark that must be in every frame">
            Keep
          </Button>
        </Dropdown>
      )}
      {leaning.size > 0 && (
        <Button
          size="small"
          title="Turns what leans as it is proposed, where nobody has turned it"
          onClick={() => store.setMany({ frames: leaning })}
        >
          Straighten {counted(leaning.size, 'frame')}
        </Button>
      )}
      {lettering.length > 0 && (
        <Dropdown
          trigger={['click']}
          menu={{
            items: lettering.map((item) => {
              const all = project.originals.map(({ id }) => id);
              const then = laidOver(lettering, item.id, ids, all);
              const isOver = [...ids].every((id) => item.originalIds?.includes(id) ?? true);
              return {
                key: item.id,
                label: `${item.name}: ${isOver ? 'leave it off these' : 'lay it over these'}`,
                disabled: then === null,
                onClick: () => then && store.set('projects', project.id, { lettering: then }),
              };
            }),
          }}
        >
          <Button size="small">Words</Button>
        </Dropdown>
      )}
      <Button
        size="small"
        onClick={() => navigate(`/projects/${project.id}/deliver`, { state: { originalIds: [...ids] } })}
      >
        Deliver …
      </Button>
      <Button size="small" type="text" onClick={() => onSelect(new Set())}>
        Select none
      </Button>
    </section>
  );
}
