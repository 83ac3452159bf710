import { createHash } from 'node:crypto';
import { clampWindow, enlargement, placeDimensions, wholeOf } from '@inkwell/core/geometry';
import { shippedPlaces } from '@inkwell/server/standins/shippedSheets.ts';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { poster } from './art/drawings.ts';
import { type PictureKey, pictures } from './make.ts';
import { demoFrames, demoSettings } from './project.ts';

/** What the pictures measure as originals; the poster is drawn 4000 pixels high. */
const dimensions: Record<PictureKey, { width: number; height: number }> = {
  flyers: { width: 6000, height: 4000 },
  panorama: { width: 12_000, height: 3000 },
  maker: { width: 4000, height: 6000 },
  poster: { width: 2927, height: 4000 },
  plan: { width: 3200, height: 2400 },
  snapshot: { width: 900, height: 700 },
  logo: { width: 2000, height: 800 },
};

test.each(['snapshot', 'logo', 'poster'] as const)('%s comes out the same every time', async (key) => {
  const hash = async () =>
    createHash('sha256')
      .update(await pictures[key].make())
      .digest('hex');
  expect(await hash()).toBe(await hash());
});

test('the poster has an empty margin and a soft shadow, the logo is transparent, and neither needs a font', async () => {
  expect(poster().toString()).not.toMatch(/<text|font-family|NaN/);
  for (const key of ['poster', 'logo'] as const) {
    const { channels } = await sharp(await pictures[key].make()).stats();
    expect(channels).toHaveLength(4);
    expect(channels[3]?.min).toBe(0);
    expect(channels[3]?.max).toBe(255);
  }
});

test('the demo’s frames are single places of the book, set as they are written down, and only the snapshot is enlarged', () => {
  const places = shippedPlaces();
  const used = new Set<string>();
  for (const { picture, frames } of demoFrames) {
    for (const frame of frames) {
      const [placeId] = frame;
      const at = places.get(placeId);
      if (!at) throw new Error(`no place ${placeId}`);
      expect(at.place.group).toBeUndefined();
      used.add(placeId);
      const output = placeDimensions(at.place, { ...dimensions[picture], trim: null });
      const { window } = demoSettings(frame, dimensions[picture], at.place);
      expect([placeId, clampWindow(window, wholeOf(dimensions[picture]), output)]).toEqual([placeId, window]);
      expect(enlargement(window, output) > 1).toBe(picture === 'snapshot');
    }
  }
  expect(used.size).toBeGreaterThanOrEqual(15);
  expect(new Set([...used].map((id) => id.split('/')[0])).size).toBe(4);
});
