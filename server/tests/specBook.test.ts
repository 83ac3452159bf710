import { formatLimit, placesById } from '@inkwell/core/model';
import { expect, test } from 'vitest';
import { shippedSheets } from '../standins/shippedSheets.ts';

const sheets = shippedSheets();
const places = placesById(sheets);

/** id | pixels | formats | limit, as they were decided on; F is JPEG and PNG, W with WebP, A with AVIF as well. */
const decided = `
sunpane/square-post 1080x1080 W 8 MB
sunpane/portrait-post 1080x1350 W 8 MB
sunpane/wide-post 1080x566 W 8 MB
sunpane/swipe-panels-portrait 1080x1350 F 8 MB
sunpane/swipe-panels-square 1080x1080 F 8 MB
sunpane/profile-quilt 1080x1440 F 8 MB
sunpane/story 1080x1920 F 12 MB
sunpane/profile-picture 640x640 F 2 MB
pipwire/single-image 1600x900 W 5 MB
pipwire/portrait-image 1080x1350 W 5 MB
pipwire/four-up-block 1200x675 W 5 MB
pipwire/pair 900x1000 W 5 MB
pipwire/header 1500x500 F 4 MB
pipwire/profile-picture 512x512 F 500 kB
candlecast/video-thumbnail 1280x720 F 1.5 MiB
candlecast/vertical-clip-cover 1080x1920 F 3 MiB
candlecast/channel-picture 900x900 F 3 MB
candlecast/channel-banner 2400x1350 F 5 MB
guildrow/feed-image 1200x1200 F 5 MB
guildrow/link-image 1200x628 F 5 MB
guildrow/article-cover 1920x1080 F 8 MB
guildrow/profile-banner 1600x400 F 8 MB
guildrow/profile-picture 400x400 F 3 MB
guildrow/document-pages 1080x1350 F 3 MB
corkmoor/tall-card 1000x1500 W 10 MB
corkmoor/long-card 1000x2000 W 10 MB
corkmoor/collection-cover 600x600 F 2 MB
hearthring/profile-picture 720x720 F 4 MB
hearthring/cover 1680x640 F 4 MB
hearthring/link-image 1200x630 F 8 MB
hearthring/feed-square 1080x1080 F 8 MB
hearthring/event-cover 1920x1008 F 8 MB
hearthring/story 1080x1920 F 8 MB
quillpost/header 1600x800 A 1 MB
quillpost/inline-picture 1440x400-3000 A 500 kB
quillpost/preview-card 1200x630 F 300 kB
stallfront/course-image 960x540 F 1 MB
stallfront/item-picture 2000x2000 W 3 MB
stallfront/shop-banner 1920x480 F 2 MB`
  .trim()
  .split('\n')
  .map((line) => /^(\S+) (\S+) ([FWA]) (.+)$/.exec(line)?.slice(1) ?? []);

test('the book holds every place that was decided on, and no other, with its numbers', () => {
  const formats = { F: 'jpeg,png', W: 'jpeg,png,webp', A: 'jpeg,png,webp,avif' };
  const found = [...places].map(([id, { place }]) => {
    const height = typeof place.height === 'number' ? place.height : `${place.height.min}-${place.height.max}`;
    return [id, `${place.width}x${height}`, place.formats.join(), formatLimit(place.limit)];
  });
  const wanted = decided.map(([id, pixels, letter, limit]) => [
    id,
    pixels,
    formats[letter as keyof typeof formats],
    limit,
  ]);
  expect(found).toEqual(wanted);
});

test('what is covered and what is shown lies where a person would look for it', () => {
  const place = (id: string) => places.get(id)?.place;
  expect(place('candlecast/video-thumbnail')?.covered).toMatchObject([
    { left: 1280 - 12 - 130, top: 720 - 12 - 44, reason: 'running time' },
  ]);
  expect(place('pipwire/header')?.covered).toMatchObject([
    { shape: 'circle', left: 60, top: 500 + 40 - 180, width: 180 },
  ]);
  expect(place('guildrow/profile-banner')?.covered).toMatchObject([
    { shape: 'circle', left: 48, top: 400 + 100 - 300, width: 300 },
  ]);
  expect(place('sunpane/story')?.covered.map((area) => [area.top, area.height])).toEqual([
    [0, 240],
    [1600, 320],
  ]);
  for (const { place } of places.values()) {
    const { shownPart } = place;
    if (!shownPart || typeof place.height !== 'number') continue;
    expect(shownPart.left + shownPart.width).toBeLessThanOrEqual(place.width);
    expect(shownPart.top + shownPart.height).toBeLessThanOrEqual(place.height);
  }
});

test('a block names every tile once in its posting order', () => {
  for (const { place } of places.values()) {
    if (place.group?.kind !== 'block') continue;
    const { columns, rows, postingOrder } = place.group;
    expect([...postingOrder].sort()).toEqual(Array.from({ length: columns * rows }, (_, index) => index));
  }
  expect(sheets).toHaveLength(8);
});
