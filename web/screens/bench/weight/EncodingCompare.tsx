import type { Point } from '@inkwell/core/geometry';
import { type Dimensions, formatLabel, type Trial } from '@inkwell/core/model';
import { useQuery } from '@tanstack/react-query';
import { Select } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { type Encoding, type EncodingSubject, encodedUrl, uncompressedUrl } from '../../../api/files/encodings.ts';
import { CompareRoom, type View } from '../../../compare/CompareRoom.tsx';
import { Skeleton } from '../../../parts/States.tsx';
import type { Surround } from '../../../theme/palette.ts';
import { theFinisher } from '../../../workers/theFinisher.ts';
import type { BenchFrame, FrameState } from '../frames/benchFrame.ts';
import { markSpots } from '../frames/markSpots.ts';

type Side = 'uncompressed' | 'own' | 'tried';

/** Differences are shown this many times as large. */
const gain = 8;

/** A frame's picture, and how its file is encoded once that is known. */
export interface MadeFile {
  subject: EncodingSubject;
  own: Encoding | null;
  dimensions: Dimensions;
}

/** The uncompressed picture, the frame's file and what is tried, two at a time, and their difference. */
export function EncodingCompare(props: {
  one: BenchFrame;
  state: FrameState;
  /** Null until the frame is saved. */
  made: MadeFile | null;
  /** Null where nothing else than the file itself is looked at. */
  tried: Encoding | null;
  trial: Trial | null;
  surround: Surround;
  goTo: Point | null;
  onGoTo: (point: Point) => void;
}) {
  const { one, state, made, tried, trial, surround, goTo, onGoTo } = props;
  const [sides, setSides] = useState<{ before: Side; after: Side }>({ before: 'uncompressed', after: 'tried' });
  if (!made) {
    return (
      <section className="compare" aria-label="Encodings">
        <Skeleton height={400} />
      </section>
    );
  }
  const { subject, own, dimensions } = made;
  const shown = tried ?? own;
  const words: Record<Side, string> = {
    uncompressed: 'Uncompressed',
    own: 'This file',
    tried: shown ? `${formatLabel[shown.format]}${trial?.quality ? ` ${trial.quality}` : ''}` : 'Not encoded yet',
  };
  const urlOf = (side: Side): string => {
    const encoding = side === 'own' ? own : shown;
    return side === 'uncompressed' || !encoding ? uncompressedUrl(subject) : encodedUrl(subject, encoding);
  };
  // The frame is set otherwise by now: the next file is on its way, and the last may be gone.
  const isPassing = subject.planHash !== state.savedHash;
  const compared = (side: Side) => ({
    word: words[side],
    draw: ({ layer }: View) => <Layer url={urlOf(side)} alt={words[side]} style={layer} isPassing={isPassing} />,
  });
  const choose = (which: 'before' | 'after') => (
    <Select<Side>
      size="small"
      aria-label={which === 'before' ? 'Compared with' : 'Shown'}
      style={{ width: 132 }}
      value={sides[which]}
      onChange={(side) => setSides((now) => ({ ...now, [which]: side }))}
      options={(Object.keys(words) as Side[]).map((value) => ({ value, label: words[value] }))}
    />
  );
  const worst = trial?.similarity?.worst;
  const spots = [
    ...(worst ? [{ id: 'worst', name: 'The worst spot', centre: middleOf(worst) }] : []),
    ...(state.grid ? [] : markSpots(one.original.marks, state)),
  ];
  return (
    <CompareRoom
      label="Encodings"
      file={dimensions}
      shownWidths={one.at.place.shownWidths}
      spots={spots}
      before={{ ...compared(sides.before), key: 'p' }}
      after={compared(sides.after)}
      difference={{
        word: `Difference × ${gain}`,
        draw: (view) => <Difference before={urlOf(sides.before)} after={urlOf(sides.after)} view={view} />,
      }}
      surround={surround}
      goTo={goTo}
      tools={
        <span className="row">
          {choose('before')} <span className="small compare-and">and</span> {choose('after')}
        </span>
      }
      overlay={({ layer, scale }) =>
        worst ? (
          <button
            type="button"
            className="worst-spot"
            aria-label="The worst spot"
            title={`The worst spot: ${worst.similarity.toFixed(1)} of 100`}
            style={{
              left: layer.left + worst.left * scale,
              top: layer.top + worst.top * scale,
              width: worst.width * scale,
              height: worst.height * scale,
            }}
            onClick={() => onGoTo(middleOf(worst))}
          />
        ) : null
      }
    />
  );
}

export const middleOf = (spot: { left: number; top: number; width: number; height: number }): Point => ({
  x: spot.left + spot.width / 2,
  y: spot.top + spot.height / 2,
});

/**
 * A picture that stays until the next one is there, so that nothing flickers while a hand drags the quality.
 *
 * @param isPassing whether another takes its place anyway: that it could not be loaded is no news then
 */
function Layer(props: { url: string; alt: string; style: View['layer']; isPassing: boolean }) {
  const { url, alt, style, isPassing } = props;
  const [shown, setShown] = useState(url);
  const [failed, setFailed] = useState<string | null>(null);
  useEffect(() => {
    if (url === shown) return;
    const picture = new Image();
    picture.onload = () => setShown(url);
    picture.onerror = () => setFailed(url);
    picture.src = url;
    return () => {
      picture.onload = null;
      picture.onerror = null;
    };
  }, [url, shown]);
  return (
    <>
      <img
        alt={alt}
        className="compare-layer"
        style={style}
        src={shown}
        data-current={shown === url}
        onError={() => setFailed(shown)}
      />
      {failed === url && !isPassing && (
        <output className="compare-live small">This picture could not be loaded.</output>
      )}
    </>
  );
}

/** How two pictures differ, drawn in the worker. */
function Difference({ before, after, view }: { before: string; after: string; view: View }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { data, isError } = useQuery({
    queryKey: ['difference', before, after],
    queryFn: () => theFinisher().difference(before, after, gain),
    gcTime: 10_000,
    staleTime: Number.POSITIVE_INFINITY,
  });
  useEffect(() => {
    if (!data || !canvas.current) return;
    canvas.current.width = data.width;
    canvas.current.height = data.height;
    canvas.current.getContext('2d')?.putImageData(new ImageData(data.pixels, data.width, data.height), 0, 0);
  }, [data]);
  return (
    <>
      <canvas ref={canvas} className="compare-layer" style={view.layer} data-ready={data !== undefined} />
      {isError && <output className="compare-live small">The difference could not be computed.</output>}
    </>
  );
}
