import { type Area, formatLabel, formatLimit, type Group, type Place, type Purpose } from '../model/index.ts';

export const purposeWords: Record<Purpose, string> = {
  post: 'Posts',
  story: 'Stories',
  cover: 'Covers',
  thumbnail: 'Thumbnails',
  profile: 'Profile pictures',
  link: 'Shared links',
  card: 'Cards',
  banner: 'Banners',
  inline: 'Inside a text',
};

/** `1080 × 1350`, or `1440 × 400–3000` where the height is free. */
export function dimensionsWords(place: Pick<Place, 'width' | 'height'>): string {
  const height = typeof place.height === 'number' ? `${place.height}` : `${place.height.min}–${place.height.max}`;
  return `${place.width} × ${height}`;
}

export const formatsWords = (place: Pick<Place, 'formats'>) =>
  place.formats.map((format) => formatLabel[format]).join(', ');
export const limitWords = (place: Pick<Place, 'limit' | 'group'>) =>
  `${formatLimit(place.limit)}${place.group ? ' each' : ''}`;

export function groupWords(group: Group): string {
  if (group.kind === 'panels') return `${group.min} to ${group.max} panels, uploaded in reading order`;
  const gap = `gaps of ${group.gap * 100}\u00a0% of a tile's width`;
  if (group.kind === 'quilt')
    return `${group.columns} columns, ${group.minRows} to ${group.maxRows} rows, ${gap}; ${group.posting}`;
  const order = group.postingOrder.map((index) => index + 1).join(', ');
  return `${group.columns} × ${group.rows} tiles, ${gap}; uploaded in the order ${order}`;
}

export const shapeWords: Record<Place['shape'], string> = {
  rectangle: 'Rectangle',
  rounded: 'Rounded corners',
  circle: 'Circle',
};

/** Where an area lies and why: `130 × 44 px at 1138, 664: running time`. */
export const areaWords = ({ left, top, width, height, shape, reason }: Area): string =>
  `${shape === 'circle' ? `circle of ${said(width)}` : `${said(width)} × ${said(height)}`} px at ${said(left)}, ${said(top)}: ${reason}`;

const said = (value: number): string => String(Number(value.toFixed(2)));
