import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { Group, ManifestFile, PieceOfWhole } from '../model/index.ts';
import { samplePlace } from '../testing/index.ts';
import { alternativeText, kitFiles, postingKit, postingWords } from './index.ts';

const line = (file: string, place: string, more: Partial<ManifestFile> = {}): ManifestFile => ({
  file,
  original: 'Dunes',
  originalSha256: 'x',
  network: 'Sunpane',
  place,
  width: 1080,
  height: 1350,
  bytes: 1,
  sha256: 'x',
  format: 'jpeg',
  quality: 90,
  chroma: null,
  colours: null,
  limitBytes: 2,
  limitUnit: 'MB',
  window: { left: 0, top: 0, width: 1, height: 1, turn: 0, mirror: false },
  planHash: place,
  ...more,
});
const piece = (number: number, of: number, rows = 1): PieceOfWhole => ({
  index: of - number,
  number,
  of,
  column: 1,
  row: 1,
  columns: of / rows,
  rows,
});
const quilt: Group = { kind: 'quilt', columns: 3, minRows: 1, maxRows: 6, gap: 0.01, posting: 'last tile first' };
const then = (group: Group) => ({
  placeThen: { id: 'a/b', sheet: { slug: 'a', checkedOn: '2026-11-01' }, spec: samplePlace({ group }) },
});

test('a kit goes network by network and frame by frame; pieces lie in posting order, and the tiles of a quilt are posts of their own', () => {
  const kit = postingKit([
    line('b.jpg', 'Swipe panels, portrait', { piece: piece(2, 2) }),
    line('a.jpg', 'Swipe panels, portrait', { piece: piece(1, 2) }),
    line('head.jpg', 'Header', { network: 'Pipwire' }),
    ...[3, 1, 2].map((at) => line(`tile-${at}.jpg`, 'Profile quilt', { piece: piece(at, 3), ...then(quilt) })),
    line('story.jpg', 'Story'),
  ]);
  expect(kit.map(({ network }) => network)).toEqual(['Sunpane', 'Pipwire']);
  expect(kitFiles(kit).map(({ path }) => path)).toEqual([
    'Sunpane/1 Swipe panels, portrait/01 a.jpg',
    'Sunpane/1 Swipe panels, portrait/02 b.jpg',
    'Sunpane/2 Profile quilt/01 tile-1.jpg',
    'Sunpane/2 Profile quilt/02 tile-2.jpg',
    'Sunpane/2 Profile quilt/03 tile-3.jpg',
    'Sunpane/3 Story/story.jpg',
    'Pipwire/1 Header/head.jpg',
  ]);
  expect(kit[0]?.entries.map(({ group, posts }) => [group, posts.map(({ key }) => key)])).toEqual([
    ['panels', ['a.jpg']],
    ['quilt', ['tile-1.jpg', 'tile-2.jpg', 'tile-3.jpg']],
    [null, ['story.jpg']],
  ]);
  // Two frames that came out alike are two posts.
  const alike = postingKit([line('one.jpg', 'Story'), line('two.jpg', 'Story')]);
  expect(kitFiles(alike).map(({ path }) => path)).toEqual(['Sunpane/1 Story/one.jpg', 'Sunpane/2 Story/two.jpg']);
});

test('whatever networks, places and files are called, paths are safe, short enough, and differ even without case', () => {
  const anyName = fc.oneof(
    fc.string({ unit: 'grapheme', maxLength: 70 }),
    fc.constantFrom('con', 'NUL', 'Com1', 'a/b\\c', '..', ' . ', 'Straße', 'STRASSE', 'aux.', 'x:y', ''),
  );
  const anyFile = fc.record({
    network: anyName,
    place: anyName,
    file: fc.oneof(fc.stringMatching(/^[a-z0-9_-]{1,170}\.jpg$/), fc.constant('con.jpg')),
  });
  fc.assert(
    fc.property(fc.uniqueArray(anyFile, { selector: ({ file }) => file, maxLength: 8 }), (asked) => {
      const files = kitFiles(postingKit(asked.map(({ network, place, file }) => line(file, place, { network }))));
      expect(files).toHaveLength(asked.length);
      expect(new Set(files.map(({ path }) => path.toLowerCase())).size).toBe(asked.length);
      for (const { path } of files) {
        expect(path.length).toBeLessThanOrEqual(180);
        const parts = path.split('/');
        expect(parts).toHaveLength(3);
        for (const part of parts) {
          expect(part).not.toMatch(/[<>:"/\\|?*\p{Cc}]|^[\s.]|[\s.]$|^$|^(con|prn|aux|nul|com\d|lpt\d)(\.|$)/iu);
        }
      }
    }),
    { numRuns: 300 },
  );
});

test('words come from the frame, or else from its original and its project; pieces say which they are', () => {
  const original = { words: { credit: '', copyright: '', altText: 'Kites over dunes' } };
  const project = { posting: { caption: 'Come along', tags: '#kites' } };
  const above = { altText: null, caption: null, tags: null };
  expect(postingWords(original, project, { posting: above })).toEqual({
    altText: 'Kites over dunes',
    caption: 'Come along',
    tags: '#kites',
  });
  expect(postingWords(original, project, { posting: { ...above, altText: '', caption: 'Today' } })).toEqual({
    altText: '',
    caption: 'Today',
    tags: '#kites',
  });
  const posting = { altText: 'Kites', caption: '', tags: '' };
  expect(alternativeText({ posting, piece: piece(2, 3) })).toBe('Kites (2 of 3)');
  expect([
    alternativeText({ posting }),
    alternativeText({ posting: { ...posting, altText: '' }, piece: piece(1, 2) }),
    alternativeText({}),
  ]).toEqual(['Kites', '', '']);
});
