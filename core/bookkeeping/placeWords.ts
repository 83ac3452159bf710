import {
  type Area,
  formatLabel,
  formatLimit,
  type Group,
  type Place,
  type Purpose,
  ratioWords,
} from '../model/index.ts';

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

/** `1080 × 1350`, or `1440 × 400–3000` where the height is free: what a place wants, or wishes for. */
export function dimensionsWords(place: Pick<Place, 'width' | 'height'>): string {
  const height = typeof place.height === 'number' ? `${place.height}` : `${place.height.min}–${place.height.max}`;
  return `${place.width} × ${height}`;
}

export const formatsWords = (place: Pick<Place, 'formats'>) =>
  place.formats.map((format) => formatLabel[format]).join(', ');
export const limitWords = (place: Pick<Place, 'limit' | 'group'>) =>
  `${formatLimit(place.limit)}${place.group ? ' each' : ''}`;

/** What a place takes beside the dimensions that it wishes for; empty where nothing. */
export function otherDimensionsWords({
  otherDimensions: other,
  multipleOf,
  mostPixels,
}: Pick<Place, 'otherDimensions' | 'multipleOf' | 'mostPixels'>): string {
  const parts: string[] = [];
  if (other?.kind === 'list') {
    parts.push(`also ${other.dimensions.map(({ width, height }) => `${width} × ${height}`).join(', ')} px`);
  }
  if (other?.kind === 'ratios') {
    parts.push(
      `any ratio from ${ratioWords(other.least)} to ${ratioWords(other.most)}, sides from ${other.leastSide} to ${other.mostSide} px`,
    );
  }
  if (multipleOf) parts.push(`sides divisible by ${multipleOf}`);
  if (mostPixels) parts.push(`at most ${mostPixels.toLocaleString('en')} pixels`);
  return parts.join('; ');
}

/** Limits beside that of one file in any format; empty where there is none. */
export function otherLimitsWords({ formatLimits = {}, postLimit }: Pick<Place, 'formatLimits' | 'postLimit'>): string {
  const ofFormats = Object.entries(formatLimits).map(
    ([format, limit]) => `${formatLabel[format as keyof typeof formatLabel]} ${formatLimit(limit)}`,
  );
  return [...ofFormats, ...(postLimit ? [`${formatLimit(postLimit)} for a whole post`] : [])].join('; ');
}

/** What a network recommends; empty where nothing. */
export function wishesWords({ wishes }: Pick<Place, 'wishes'>): string {
  const parts: string[] = [];
  if (wishes?.formats) parts.push(wishes.formats.map((format) => formatLabel[format]).join(' or '));
  if (wishes?.weight) parts.push(`at most ${formatLimit(wishes.weight)}`);
  return parts.join(', ');
}

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
