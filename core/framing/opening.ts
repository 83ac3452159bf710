import { frameDimensions, type GridSettings, gridOf, type Picture, type Point, piecesOf } from '../geometry/index.ts';
import {
  type Area,
  type Dimensions,
  type FrameSettings,
  type Place,
  plainSettings,
  type Ring,
} from '../model/index.ts';

/** What changes how a window meets its file. */
export type OpeningSettings = Pick<FrameSettings, 'ring' | 'stretch' | 'grid' | 'bridged' | 'closing'>;

/** A place as it is seen from a window: everything in pixels of the opening. */
export interface Opening {
  /**
   * What the window fills: the file's dimensions less a closing panel and a ring outside, the height times the stretch. A window
   * of this ratio shows as much of the picture as the frame does, so that all geometry of windows holds unchanged.
   */
  dimensions: Dimensions;
  shape: Place['shape'];
  /** How many times wider the picture is drawn than it is. */
  stretch: number;
  /** How far the picture's visible shape lies inside of the opening, each way: under a ring that lies inside. */
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

/** What covers a frame, in its pixels: where it is cut, the same on every piece. */
export function coveredAreas(place: Place, settings: GridSettings): Area[] {
  const grid = gridOf(place, settings);
  if (!grid) return place.covered;
  return piecesOf(grid).flatMap((piece) =>
    place.covered.map((area) => ({ ...area, left: area.left + piece.left, top: area.top + piece.top })),
  );
}

/** How the window of a frame meets its file. */
export function openingOf(place: Place, picture: Picture, settings: OpeningSettings): Opening {
  const { ring, stretch } = settings;
  const spread = { ...settings, closing: null };
  const file = frameDimensions(place, picture, spread);
  const drawn = ringOf(place, file, ring);
  const outside = drawn?.side === 'outside' ? drawn.width : 0;
  const inside = drawn?.side === 'inside' ? drawn.width : 0;
  const seen = (area: Area): Area => ({
    ...area,
    left: area.left - outside,
    top: (area.top - outside) * stretch,
    height: area.height * stretch,
  });
  return {
    dimensions: { width: file.width - 2 * outside, height: (file.height - 2 * outside) * stretch },
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

/** The opening of a place without a ring, unstretched. */
export const plainOpening = (place: Place, picture: Picture): Opening => openingOf(place, picture, plainSettings);
