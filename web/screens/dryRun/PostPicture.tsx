import type { Area, DryRun, DryRunFile, Place } from '@inkwell/core/model';
import { runPictureUrl } from '../../api/projects/dryRuns.ts';
import type { Side } from './RunWall.tsx';

/** Rounded corners, as a share of the shorter side. */
const rounding = 0.06;

/** The files that are shown together with one: the tiles of its block, or of its quilt, in reading order; else itself. */
function together(run: DryRun, file: DryRunFile, kind: NonNullable<Place['group']>['kind'] | undefined): DryRunFile[] {
  if (kind !== 'block' && kind !== 'quilt') return [file];
  return run.files
    .filter(({ line }) => line.planHash === file.line.planHash && line.place === file.line.place)
    .sort((a, b) => (a.line.piece?.index ?? 0) - (b.line.piece?.index ?? 0));
}

/**
 * A post as its audience sees it at a width: its tiles with their gaps, through the place's mask, under the network's controls, and
 * without what is folded away.
 */
export function PostPicture(props: {
  run: DryRun;
  file: DryRunFile;
  spec: Place;
  /** In CSS pixels. */
  width: number;
  side: Side;
  withControls: boolean;
}) {
  const { run, file, spec, width, side, withControls } = props;
  const { group, shape, covered, shownPart } = spec;
  const tiles = together(run, file, group?.kind);
  const columns = tiles.length > 1 ? (file.line.piece?.columns ?? 1) : 1;
  const gapShare = group && group.kind !== 'panels' && tiles.length > 1 ? group.gap : 0;
  const whole = group?.kind === 'quilt' ? width * (columns + (columns - 1) * gapShare) : width;
  const tile = whole / (columns + (columns - 1) * gapShare);
  const scale = tile / file.line.width;
  const height = tileHeight(file, side, tile);
  const isFold = shownPart && shownPart.left === 0 && shownPart.top === 0 && shownPart.width === spec.width;
  const folded = isFold && tiles.length === 1 ? Math.min(height, shownPart.height * scale) : null;
  const corners = shape === 'circle' ? '50%' : shape === 'rounded' ? rounding * Math.min(tile, height) : 0;
  return (
    <span
      className="post-picture"
      style={{
        width: whole,
        gridTemplateColumns: `repeat(${columns}, ${tile}px)`,
        gap: tile * gapShare,
        ...(tiles.length === 1 ? { borderRadius: corners } : group?.kind === 'block' ? { borderRadius: 12 } : {}),
        ...(folded === null ? {} : { height: folded }),
      }}
    >
      {tiles.map((one) => (
        <TilePicture key={one.position} run={run} file={one} width={tile} side={side} />
      ))}
      {withControls &&
        tiles.length === 1 &&
        covered.map((area) => <Control key={`${area.left} ${area.top}`} area={area} scale={scale} />)}
    </span>
  );
}

/** What a tile's picture is: with what was cut off it gone, as it is shown; or whole. */
function tileHeight({ line, outcome }: DryRunFile, side: Side, width: number): number {
  const kept = side === 'shown' && outcome?.state === 'shown' ? outcome.back.kept : line;
  return (width * kept.height) / kept.width;
}

function TilePicture({ run, file, width, side }: { run: DryRun; file: DryRunFile; width: number; side: Side }) {
  const { line, outcome } = file;
  const back = outcome?.state === 'shown' ? outcome.back : null;
  const nearest = [...(back?.shown ?? [])].sort((a, b) => Math.abs(a.width - width) - Math.abs(b.width - width))[0];
  const sha256 = side === 'shown' ? (nearest?.sha256 ?? back?.kept.sha256) : line.sha256;
  const height = tileHeight(file, side, width);
  if (!sha256) return <span className="post-tile post-missing" style={{ width, height }} />;
  return (
    <span className="post-tile" style={{ width, height }}>
      <img
        alt={`${line.place}, ${side === 'shown' ? 'as shown' : 'delivered'}`}
        src={runPictureUrl(run, sha256)}
        style={{ width, height }}
      />
    </span>
  );
}

function Control({ area, scale }: { area: Area; scale: number }) {
  const { left, top, width, height, shape, reason } = area;
  return (
    <span
      className="post-control"
      title={reason}
      style={{
        left: left * scale,
        top: top * scale,
        width: width * scale,
        height: height * scale,
        borderRadius: shape === 'circle' ? '50%' : 0,
      }}
    />
  );
}
