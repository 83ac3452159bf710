import { scaledBy } from '@inkwell/core/geometry';
import type { LearnedUpload, Place } from '@inkwell/core/model';
import { Button } from 'antd';
import dayjs from 'dayjs';
import { useForgetUpload } from '../../api/files/survival.ts';
import { ForEditors } from '../../parts/ForEditors.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { choiceWords } from '../../places/uploadWords.ts';

/** How files for a place are uploaded since that was learned. */
export function LearnedLine({ learned, place }: { learned: LearnedUpload; place: Place }) {
  const { survival, learnedFrom, learnedOn, isOutdated, placeId } = learned;
  const { choice } = survival.best;
  const forget = useForgetUpload();
  const note = useUndoNote();
  const height = typeof place.height === 'number' ? place.height : place.height.max;
  const own = { width: place.width, height };
  const dimensions = choice.width === null ? own : scaledBy(own, choice.width / place.width);
  return (
    <div>
      Uploaded as learned on “{learnedFrom}”, {dayjs(learnedOn).format('D MMM YYYY')}: {choiceWords(choice, dimensions)}
      {isOutdated ? '; its numbers have changed since, so new frames are not.' : '.'}{' '}
      <ForEditors>
        <Button
          size="small"
          type="text"
          aria-label={`Forget how ${place.name} is uploaded`}
          title="New frames are uploaded as the place says again; those that are there stay as they are"
          onClick={() => forget.mutate({ placeId }, { onError: note.failed })}
        >
          Forget it
        </Button>
      </ForEditors>
    </div>
  );
}
