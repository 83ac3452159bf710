import { fileDimensions } from '@inkwell/core/geometry';
import type { LearnedUpload } from '@inkwell/core/model';
import { changeFor, isSetAs } from '@inkwell/core/surviving';
import { Button } from 'antd';
import dayjs from 'dayjs';
import { choiceWords, gainWords } from '../../../../places/uploadWords.ts';
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
    return (
      <p className="quiet small">
        Uploaded as was learned for {at.place.name} ({on}): {gainWords(survival, at.place.limit.unit)}.
      </p>
    );
  }
  const change = changeFor(choice, settings, state.finish.treatment.blend);
  const dimensions = fileDimensions(at.place, original, { ...settings, ...change });
  return (
    <p className="small">
      Learned for {at.place.name} ({on}): {choiceWords(choice, dimensions)}; {gainWords(survival, at.place.limit.unit)}.{' '}
      <Button size="small" onClick={() => store.set('frames', frame.id, change)}>
        Upload it like that
      </Button>
    </p>
  );
}
