import { fileDimensions } from '@inkwell/core/geometry';
import type { LearnedUpload } from '@inkwell/core/model';
import { changeFor, isSetAs, mostDifferent } from '@inkwell/core/surviving';
import { Button } from 'antd';
import dayjs from 'dayjs';
import { choiceWords, whereWords } from '../../../../places/uploadWords.ts';
import type { BenchFrame, FrameState } from '../../frames/benchFrame.ts';
import { useBenchStore } from '../../state/useBench.ts';

/** The way to upload that is used for a frame's place, and whether this frame is uploaded like that. */
export function Learned({ one, state, learned }: { one: BenchFrame; state: FrameState; learned: LearnedUpload }) {
  const { frame, at, original } = one;
  const { survival, learnedFrom, learnedOn, isOutdated } = learned;
  const store = useBenchStore();
  const { settings } = state;
  const { choice } = survival.best;
  if (isOutdated) {
    return (
      <p className="quiet small">
        How files for {at.place.name} are uploaded best was learned before its numbers changed. It has to be found
        again.
      </p>
    );
  }
  const on = `on “${learnedFrom}”, ${dayjs(learnedOn).format('D MMM YYYY')}`;
  if (isSetAs(choice, settings)) {
    const most = mostDifferent(survival);
    return (
      <p className="quiet small">
        Uploaded as was learned for {at.place.name} ({on})
        {most &&
          `: shown ${most.after.similarity.toFixed(1)} instead of ${most.before.similarity.toFixed(1)} ${whereWords(most.after)}`}
        .
      </p>
    );
  }
  const change = changeFor(choice, settings, state.finish.treatment.blend);
  const dimensions = fileDimensions(at.place, original, { ...settings, ...change });
  return (
    <p className="small">
      Learned for {at.place.name} ({on}): {choiceWords(choice, dimensions)}.{' '}
      <Button size="small" onClick={() => store.set('frames', frame.id, change)}>
        Upload it like that
      </Button>
    </p>
  );
}
