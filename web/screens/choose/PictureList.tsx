import type { OpenProject, Original } from '@inkwell/core/model';
import { Button, Checkbox } from 'antd';
import { useMemo } from 'react';
import { previewUrl } from '../../api/library/originals.ts';
import { counted } from '../../parts/counted.ts';
import { ForEditors } from '../../parts/ForEditors.tsx';
import { useGrowing } from '../../parts/many/useGrowing.tsx';

/** The pictures of a project, with a tick for each that is given places. */
export function PictureList(props: {
  project: OpenProject;
  originals: readonly Original[];
  unticked: ReadonlySet<string>;
  onTick: (unticked: ReadonlySet<string>) => void;
  onTakeOut: (original: Original) => void;
}) {
  const { project, originals, unticked, onTick, onTakeOut } = props;
  const counts = useMemo(() => {
    const byOriginal = new Map<string, number>();
    for (const { originalId } of project.frames) byOriginal.set(originalId, (byOriginal.get(originalId) ?? 0) + 1);
    return byOriginal;
  }, [project.frames]);
  const { drawn, end } = useGrowing(originals);
  return (
    <ul className="choose-list">
      {drawn.map((original) => (
        <li key={original.id} className="row">
          <ForEditors>
            <Checkbox
              aria-label={`Give places to ${original.name}`}
              checked={!unticked.has(original.id)}
              onChange={({ target }) => {
                const next = new Set(unticked);
                if (target.checked) next.delete(original.id);
                else next.add(original.id);
                onTick(next);
              }}
            />
          </ForEditors>
          <img alt="" loading="lazy" src={previewUrl(original, 160)} className="choose-thumb" />
          <span style={{ flex: 1, minWidth: 0 }}>
            <strong>{original.name}</strong>
            <br />
            <span className="quiet small">
              {original.width} × {original.height} px · {counted(counts.get(original.id) ?? 0, 'place')}
            </span>
          </span>
          <ForEditors>
            <Button
              size="small"
              type="text"
              onClick={() => onTakeOut(original)}
              aria-label={`Take ${original.name} out of the project`}
            >
              Take out
            </Button>
          </ForEditors>
        </li>
      ))}
      {end && <li>{end}</li>}
    </ul>
  );
}

/** Pictures that came in earlier and are not in this project. */
export function Library({ originals, onAdd }: { originals: readonly Original[]; onAdd: (id: string) => void }) {
  const { drawn, end } = useGrowing(originals);
  if (originals.length === 0) return null;
  return (
    <>
      <h3 style={{ marginTop: 18 }}>From your originals</h3>
      <div className="choose-library">
        {drawn.map((original) => (
          <button
            key={original.id}
            type="button"
            className="plain-button"
            title={`Add ${original.name}`}
            aria-label={`Add ${original.name}`}
            onClick={() => onAdd(original.id)}
          >
            <img alt="" loading="lazy" src={previewUrl(original, 160)} />
            <span className="small">{original.name}</span>
          </button>
        ))}
        {end}
      </div>
    </>
  );
}
