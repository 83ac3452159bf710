import {
  frameDimensions,
  type GridSettings,
  gridOf,
  hasClosing,
  type Picture,
  type Point,
  piecesOf,
} from '../geometry/index.ts';
import {
  type Area,
  type Border,
  type Dimensions,
  type FrameSettings,
  type Place,
  plainSettings,
  type Ring,
} from '../model/index.ts';

/** What changes how a window meets its file. */
export type ContentAreaSettings = Pick<
  FrameSettings,
  'ring' | 'stretch' | 'grid' | 'bridged' | 'closing' | 'dimensions'
> & {
  /** Of the frame's finish. */
  border: Border | null;
};

/** A place as it is seen from a window: everything in pixels of the content area. */
export interface ContentArea {
  /**
   * What the window fills: the file's dimensions less a closing panel, a ring and a border outside, the height times the stretch. A window
   * of this ratio shows as much of the picture as the frame does, so that all geometry of windows holds unchanged.
   */
  dimensions: Dimensions;
  shape: Place['shape'];
  /** How many times wider the picture is drawn than it is. */
  stretch: number;
  /** How far the picture's visible shape lies inside of the content area, each way: under a ring that lies inside. */
  inset: Point;
  covered: Area[];
  shownPart: Area | null;
  purpose: Place['purpose'];
  /** What one piece is called where the frame is cut into several. */
  grouped: boolean;
}

/** A ring is never so wide that nothing of the picture is left: at most this part of the shorter side. */
const widestRing = 0.4;

/** The ring of a frame as it is drawn; null where the place is a plain rectangle or takes several pieces. */
export function ringOf(place: Pick<Place, 'shape' | 'group'>, file: Dimensions, ring: Ring | null): Ring | null {
  if (!ring || place.shape === 'rectangle' || place.group) return null;
  return { ...ring, width: Math.min(ring.width, Math.floor(Math.min(file.width, file.height) * widestRing)) };
}

/** The border of a frame as it is drawn; null where the frame has another shape, which a ring is for. */
export function borderOf(place: Pick<Place, 'shape'>, border: Border | null): Border | null {
  return place.shape === 'rectangle' ? border : null;
}

/** Pixels on each side of a frame. */
export interface Margins {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

export const noMargins: Margins = { left: 0, top: 0, right: 0, bottom: 0 };

/** A border is never so wide that less than this part of a side is left to the picture. */
const widestBorder = 0.25;

/**
 * What a border takes of the picture's room. Inside it takes none; round pieces, or with a closing panel, it is always
 * inside, or the picture could not run on from piece to piece.
 */
export function borderMargins(border: Border | null, file: Dimensions, runsOn: boolean): Margins {
  if (!border || border.side === 'inside' || border.round === 'pieces' || runsOn) return noMargins;
  const width = Math.min(border.width, Math.floor(Math.min(file.width, file.height) * widestBorder));
  const { left, top, right, bottom } = border.edges;
  const side = (on: boolean) => (on ? width : 0);
  return { left: side(left), top: side(top), right: side(right), bottom: side(bottom) };
}

/** What covers a frame, in its pixels: where it is cut, the same on every piece. */
export function coveredAreas(place: Place, settings: GridSettings): Area[] {
  const grid = gridOf(place, settings);
  if (!grid) return place.covered;
  return piecesOf(grid).flatMap((piece) =>
    place.covered.map((area) => ({ ...area, left: area.left + piece.left, top: area.top + piece.top })),
  );
}

/** How the window of a frame meets its file. */
export function contentAreaOf(place: Place, picture: Picture, settings: ContentAreaSettings): ContentArea {
  const { ring, stretch } = settings;
  const spread = { ...settings, closing: null };
  const file = frameDimensions(place, picture, spread);
  const drawn = ringOf(place, file, ring);
  const outside = drawn?.side === 'outside' ? drawn.width : 0;
  const margins = borderMargins(borderOf(place, settings.border), file, hasClosing(place, settings));
  const inside = drawn?.side === 'inside' ? drawn.width : 0;
  const seen = (area: Area): Area => ({
    ...area,
    left: area.left - outside - margins.left,
    top: (area.top - outside - margins.top) * stretch,
    height: area.height * stretch,
  });
  return {
    dimensions: {
      width: file.width - 2 * outside - margins.left - margins.right,
      height: (file.height - 2 * outside - margins.top - margins.bottom) * stretch,
    },
    shape: place.shape,
    stretch,
    inset: { x: inside, y: inside * stretch },
    covered: coveredAreas(place, spread).map(seen),
    // Of several pieces each has a part of its own: there is no one part in which a composition could be made.
    shownPart: place.shownPart && !settings.grid ? seen(place.shownPart) : null,
    purpose: place.purpose,
    grouped: place.group !== undefined,
  };
}

/** The content area of a place without a ring, unstretched. */
export const plainContentArea = (place: Place, picture: Picture): ContentArea =>
  contentAreaOf(place, picture, { ...plainSettings, border: null });
