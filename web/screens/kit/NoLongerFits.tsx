import { type Delivery, isLeftOut } from '@inkwell/core/model';
import { placeReasons } from '@inkwell/core/posting';
import { Button } from 'antd';
import { useNavigate } from 'react-router';
import { usePlaces } from '../../api/library/specBook.ts';
import { useDeliver } from '../../api/projects/deliveries.ts';
import { useMeasured } from '../../api/projects/measured.ts';
import { counted } from '../../parts/counted.ts';
import { ForEditors } from '../../parts/ForEditors.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { useOpenProject } from '../ProjectLayout.tsx';

/** Which files of a delivery their places do not take any more, as the spec book is now, and the way to deliver those again. */
export function NoLongerFits({ delivery }: { delivery: Delivery }) {
  const project = useOpenProject();
  const places = usePlaces(project);
  const { byFrame, isPending } = useMeasured(project);
  const deliver = useDeliver(project.id);
  const note = useUndoNote();
  const navigate = useNavigate();
  const unfit = delivery.files.flatMap((line) => {
    const at = places.get(line.placeThen?.id ?? '');
    const reasons = at ? placeReasons(line, at.place, line.uploadWidth) : [];
    return reasons.length > 0 ? [{ line, reasons }] : [];
  });
  if (unfit.length === 0) return null;
  const frames = project.frames.filter((frame) => {
    if (isLeftOut(frame)) return false;
    const original = project.originals.find(({ id }) => id === frame.originalId);
    return unfit.some(({ line }) => line.placeThen?.id === frame.placeId && line.originalSha256 === original?.sha256);
  });
  const seen = frames.flatMap(({ id }) => {
    const plan = byFrame.get(id)?.planHash;
    return plan ? [{ frameId: id, plan }] : [];
  });
  const again = async () => {
    try {
      const only = seen.map(({ frameId }) => frameId);
      const { id } = await deliver.mutateAsync({ pattern: project.pattern, seen, only });
      navigate(`/projects/${project.id}/deliver/${id}`);
    } catch (error) {
      note.failed(error);
    }
  };
  return (
    <section className="kit-remark" aria-label="Files that no longer fit">
      <div className="row spread wrap">
        <strong>
          {counted(unfit.length, 'file')} of this delivery {unfit.length === 1 ? 'does' : 'do'} not fit any more: the
          numbers of {unfit.length === 1 ? 'its place' : 'their places'} have changed.
        </strong>
        {!isPending && seen.length === 0 ? (
          <span className="quiet">No frame of this project can be delivered in place of them.</span>
        ) : (
          <ForEditors>
            <Button size="small" loading={isPending || deliver.isPending} onClick={again}>
              Deliver {frames.length === 1 ? 'it' : 'these'} again
            </Button>
          </ForEditors>
        )}
      </div>
      <ul>
        {unfit.map(({ line, reasons }) => (
          <li key={line.file} className="small">
            {line.file}: {reasons.join(' ')}
            {line.placeThen?.sheet.version && (
              <span className="quiet"> It was delivered by version {line.placeThen.sheet.version} of the sheet.</span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
