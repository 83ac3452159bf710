import { EllipsisOutlined } from '@ant-design/icons';
import { stretchWords } from '@inkwell/core/checking';
import { boundsOf, clampWindow, frameAxes, pictureBox, wholeWindow } from '@inkwell/core/geometry';
import { type FrameChange, type FrameSettings, stretches } from '@inkwell/core/model';
import { Button, Dropdown, Tooltip } from 'antd';
import { counted } from '../../../parts/counted.ts';
import { type BenchFrame, contentAreaFor, type FrameState, resetChange } from '../frames/benchFrame.ts';
import { useBench, useBenchStore } from '../state/useBench.ts';

/** Shapes that differ less than this are alike enough to share a window. */
const likeRatio = 0.03;

/** How the frame came by its window, and the ways to another one. */
export function Placement({
  one,
  state,
  frames,
}: {
  one: BenchFrame;
  state: FrameState;
  frames: readonly BenchFrame[];
}) {
  const store = useBenchStore();
  const { frame, original } = one;
  const { settings, window, contentArea } = state;
  const set = (change: FrameChange) => store.set('frames', frame.id, change);
  const all = useBench((bench) => bench.settings.frames);
  const alike = frames.flatMap((other) => {
    const set = all[other.frame.id];
    if (!set || other.frame.id === frame.id) return [];
    const shape = contentAreaFor(other, set);
    const isAlike = Math.abs((shape.height / shape.width) * (contentArea.width / contentArea.height) - 1) < likeRatio;
    return isAlike ? [{ ...other, set }] : [];
  });
  const copy = () => {
    const { backing, stretch, hands } = settings;
    const change = (other: BenchFrame & { set: FrameSettings }): FrameChange => {
      const theirs = contentAreaFor(other, { ...other.set, stretch });
      const placed = clampWindow(window, boundsOf(original, backing), theirs);
      return { window: placed, composed: false, backing, stretch, hands };
    };
    store.setFrames(new Map(alike.map((other) => [other.frame.id, change(other)])));
  };
  const stretching = stretchToWhole(one, state);
  return (
    <span className="reading-placement">
      <span className="quiet" data-testid="placement">
        {settings.composed ? (settings.backing ? 'shown whole' : 'composed') : 'moved by hand'}
      </span>
      {!settings.composed && (
        <Button size="small" title="Compose again from the marks (C)" onClick={() => set({ composed: true })}>
          Compose again
        </Button>
      )}
      <Button size="small" title="The largest window in the middle (0)" onClick={() => set(resetChange(one, settings))}>
        Reset
      </Button>
      {alike.length > 0 && (
        <Tooltip title={alike.map((other) => `${other.at.network.name} ${other.at.place.name}`).join(', ')}>
          <Button size="small" onClick={copy}>
            Apply to {counted(alike.length, 'frame')} of the same shape
          </Button>
        </Tooltip>
      )}
      <Dropdown
        trigger={['click']}
        autoFocus
        menu={{
          items: [
            {
              key: 'stretch',
              disabled: stretching.change === null,
              label: stretching.label,
              onClick: () => stretching.change && set(stretching.change),
            },
          ],
        }}
      >
        <Button size="small" aria-label="More for this frame" icon={<EllipsisOutlined />} />
      </Dropdown>
    </span>
  );
}

/** What stretches the whole picture into the frame, with its distortion in words; no change where it cannot. */
function stretchToWhole(
  one: BenchFrame,
  { settings, window }: FrameState,
): { label: string; change: FrameChange | null } {
  const box = pictureBox(one.original);
  const { turn } = window;
  if (turn % 90 !== 0) return { label: 'Stretch: only upright pictures and quarter turns', change: null };
  const onSide = Math.abs(frameAxes(window).across.x) < 0.5;
  const contentArea = contentAreaFor(one, { ...settings, stretch: 1 });
  const rise = onSide ? box.width / box.height : box.height / box.width;
  const stretch = Math.round(rise * (contentArea.width / contentArea.height) * 10_000) / 10_000;
  if (Math.abs(stretch - 1) < 0.005) return { label: 'Stretch: the whole picture fits as it is', change: null };
  const words = stretchWords(stretch);
  if (stretch < stretches.least || stretch > stretches.most) {
    return { label: `Stretch: the whole picture would be ${words}, which is too much`, change: null };
  }
  const stretched = { width: contentArea.width, height: contentArea.height * stretch };
  return {
    label: `Stretch to show the whole picture: drawn ${words}`,
    change: {
      stretch,
      backing: null,
      composed: false,
      window: wholeWindow(boundsOf(one.original, null), stretched, window),
    },
  };
}
