import { formatLabel, formatLimit, type Group, type Place, type Purpose } from '@inkwell/core/model';

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
