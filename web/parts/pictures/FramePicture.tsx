import './FramePicture.css';
import { borderMargins, borderOf, type Margins, noMargins, ringOf, roundedRadius } from '@inkwell/core/framing';
import { frameAxes, pictureBox } from '@inkwell/core/geometry';
import {
  type Backing,
  type Border,
  carriesTransparency,
  type Dimensions,
  type FrameSettings,
  type Original,
  type Place,
  type Window,
} from '@inkwell/core/model';
import { closingPanel, flattenColour, isCutOut, type RenderPlan, ringPath } from '@inkwell/core/planning';
import { type CSSProperties, useState } from 'react';
import { previewUrl } from '../../api/library/originals.ts';
import { proofUrl, shownUrl } from '../../api/projects/frames.ts';
import { LetterLayers } from './LetterLayers.tsx';

/** The width of the picture of an original that movements are shown with. */
export const movingPreviewWidth = 2000;
const proofStep = 64;
/** Narrower pictures have no room for words, in CSS pixels. */
const leastToldWidth = 110;

/**
 * A frame's picture at `width` CSS pixels: the server's proof where there is one for what is set, and the moved preview
 * of the original until then. Both follow from the same window, so that nothing jumps when one replaces the other.
 */
export function FramePicture(props: {
  frameId: string;
  original: Original;
  place: Place;
  output: Dimensions;
  window: Window;
  settings: FrameSettings;
  /** Of the frame's finish. */
  border: Border | null;
  /** The plan whose proof is shown; null while a hand moves the frame or a save is on its way. */
  planHash: string | null;
  /** Whether its file is made: then that is shown, decoded. Left out where nobody asks for the difference. */
  isMade?: boolean;
  width: number;
  /** What is laid over it; left out where the picture is not drawn here. */
  lettering?: RenderPlan['lettering'];
  /** Shows the file as the network's mask leaves it, even where it is cut out already. */
  masked?: boolean;
}) {
  const {
    frameId,
    original,
    place,
    output,
    window,
    settings,
    planHash,
    isMade,
    width,
    masked = false,
    lettering = null,
  } = props;
  const { backing, flatten } = settings;
  const [loaded, setLoaded] = useState<string | null>(null);
  const [loadedFile, setLoadedFile] = useState<string | null>(null);
  const [failedFile, setFailedFile] = useState<string | null>(null);
  const height = (width * output.height) / output.width;
  const pixels = Math.min(output.width, Math.ceil((width * devicePixelRatio) / proofStep) * proofStep);
  // A file that is there is shown by itself: a proof of the same picture would be drawn for nothing.
  const needsProof = !isMade || loaded === planHash || failedFile === planHash;
  const isFile = planHash !== null && isMade === true && loadedFile === planHash;
  const proved = planHash !== null && (loaded === planHash || isFile);
  const preview = previewUrl(original, movingPreviewWidth);
  const scale = width / output.width;
  const rounding = roundingOf(place, output, scale);
  const cutOut = isCutOut(place, settings);
  const seeThrough = flatten === null && carriesTransparency(settings.format);
  const ring = ringOf(place, output, settings.ring);
  const closing = closingPanel(original, place, settings, window);
  const outside = ring?.side === 'outside' ? ring.width : 0;
  const drawn = borderOf(place, props.border);
  const taken = borderMargins(drawn, output, closing !== null);
  /** CSS pixels that ring and border take of the picture's room. */
  const margins = {
    left: (outside + taken.left) * scale,
    top: (outside + taken.top) * scale,
    right: (outside + taken.right) * scale,
    bottom: (outside + taken.bottom) * scale,
  };
  const strip = width - (closing?.width ?? 0) * scale;
  const moved = { original, preview, stretch: settings.stretch, height };
  return (
    <span
      className="frame-picture"
      data-transparent={seeThrough && (cutOut || backing?.kind === 'transparent')}
      data-true={proved}
      data-file={isFile}
      data-shape={place.shape}
      style={{
        width,
        height,
        ...(cutOut && !masked ? {} : { borderRadius: rounding }),
        ...(cutOut && !seeThrough ? { background: flatten ?? flattenColour } : {}),
      }}
    >
      {!proved && (
        <span className="moving-layers" style={{ borderRadius: rounding }}>
          <MovedPicture {...moved} window={window} backing={backing} margins={margins} left={0} width={strip} />
          {closing && <MovedPicture {...moved} {...closing} margins={noMargins} left={strip} width={width - strip} />}
          {drawn && drawn.round === 'whole' && <MovedBorder border={drawn} scale={scale} />}
          {ring && (
            <svg className="moving-ring" viewBox={`0 0 ${output.width} ${output.height}`} aria-hidden="true">
              <path
                fill={ring.colour}
                fillRule="evenodd"
                d={ringPath(
                  { kind: place.shape === 'circle' ? 'ellipse' : 'rounded', radius: roundedRadius(output) },
                  ring.width,
                  output,
                )}
              />
            </svg>
          )}
          {lettering && <LetterLayers lettering={lettering} output={output} />}
        </span>
      )}
      {planHash && needsProof && (
        <img
          alt=""
          className="proof"
          src={proofUrl(frameId, planHash, pixels)}
          style={{ visibility: loaded === planHash ? 'visible' : 'hidden' }}
          onLoad={() => setLoaded(planHash)}
        />
      )}
      {planHash && isMade && (
        <img
          alt=""
          className="proof"
          src={shownUrl(frameId, planHash, pixels)}
          style={{ visibility: isFile ? 'visible' : 'hidden' }}
          onLoad={() => setLoadedFile(planHash)}
          onError={() => setFailedFile(planHash)}
        />
      )}
      {proved && isMade === false && width >= leastToldWidth && (
        <span className="before-compression">before compression</span>
      )}
    </span>
  );
}

/** The preview of an original as a window shows it, on its backing. */
function MovedPicture(props: {
  original: Original;
  preview: string;
  window: Window;
  backing: Backing | null;
  stretch: number;
  margins: Margins;
  /** Where it lies, in CSS pixels. */
  left: number;
  width: number;
  height: number;
}) {
  const { original, preview, window, backing, stretch, margins, left, width, height } = props;
  return (
    <span
      className="moved-picture"
      style={{ left, width, ...(backing?.kind === 'colour' ? { background: backing.colour } : {}) }}
    >
      {backing?.kind === 'echo' && <img alt="" className="echo" src={preview} />}
      <img
        alt=""
        className="moving"
        decoding="sync"
        src={preview}
        style={movedPreview(original, window, stretch, margins, { width, height })}
      />
    </span>
  );
}

/** A border as it will be drawn, at least one pixel wide on the screen. */
function MovedBorder({ border, scale }: { border: Border; scale: number }) {
  const width = (on: boolean) => (on ? Math.max(1, Math.round(border.width * scale)) : 0);
  const { left, top, right, bottom } = border.edges;
  return (
    <span
      className="moving-border"
      style={{
        borderColor: border.colour,
        borderWidth: `${width(top)}px ${width(right)}px ${width(bottom)}px ${width(left)}px`,
      }}
    />
  );
}

/** The corners that the network's mask takes; it masks pieces one by one, not the whole that they are cut from. */
function roundingOf({ shape, group }: Pick<Place, 'shape' | 'group'>, output: Dimensions, scale: number) {
  if (group || shape === 'rectangle') return 0;
  return shape === 'circle' ? '50%' : roundedRadius(output) * scale;
}

/**
 * Lays the preview of an original so that a box of CSS pixels shows what the window shows.
 *
 * @param margins CSS pixels of the box that the window does not fill
 */
function movedPreview(
  original: Original,
  window: Window,
  stretch: number,
  margins: Margins,
  box: Dimensions,
): CSSProperties {
  const inner = {
    width: box.width - margins.left - margins.right,
    height: box.height - margins.top - margins.bottom,
  };
  const scale = inner.width / window.span;
  const { across, down } = frameAxes(window);
  const [x, y] = [window.centreX * scale, window.centreY * scale];
  const left = margins.left + inner.width / 2 - (across.x * x + across.y * y);
  const top = margins.top + inner.height / 2 - (down.x * x + down.y * y) / stretch;
  const trim = pictureBox(original);
  const right = original.width - trim.left - trim.width;
  const bottom = original.height - trim.top - trim.height;
  return {
    width: original.width * scale,
    height: original.height * scale,
    transform: `matrix(${across.x}, ${down.x / stretch}, ${across.y}, ${down.y / stretch}, ${left}, ${top})`,
    ...(original.trim
      ? { clipPath: `inset(${trim.top * scale}px ${right * scale}px ${bottom * scale}px ${trim.left * scale}px)` }
      : {}),
  };
}
