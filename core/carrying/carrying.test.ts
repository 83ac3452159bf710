import { expect, test } from 'vitest';
import { shippedStyles } from '../lettering/index.ts';
import { type OpenProject, plainSettings, plainWeighing } from '../model/index.ts';
import { countedUp, nextName, nextProject } from './index.ts';

test('the last number of a name counts up, as wide as it was; dates and ratios are no numbers', () => {
  const next = (name: string) => nextName(name, 120);
  expect(['Episode 12', 'Episode 099 (draft)', 'Week 3 of 9', 'Festival week', '7'].map(next)).toEqual([
    'Episode 13',
    'Episode 100 (draft)',
    'Week 3 of 10',
    'Festival week 2',
    '8',
  ]);
  expect([countedUp('2026-11-29'), countedUp('Crop 16:9'), countedUp('Version 1.5'), countedUp('')]).toEqual([
    null,
    null,
    null,
    null,
  ]);
  expect(next('x'.repeat(120))).toHaveLength(120);
  expect(nextName(`${'x'.repeat(118)}99`, 120)).toHaveLength(120);
});

test('the next project has all that was set, the places that most pictures had, and none of its pictures', () => {
  const frame = (originalId: string, placeId: string) => ({
    ...plainSettings,
    originalId,
    placeId,
    weighing: { ...plainWeighing, aim: { kind: 'as good as fits' } },
  });
  const item = {
    kind: 'words',
    id: '00000000-0000-4000-8000-000000000001',
    name: 'Number',
    role: 'number',
    text: 'No. 12',
    short: '',
    originalIds: ['00000000-0000-4000-8000-000000000002'],
    notOn: ['story'],
    notOnPlaces: ['one/post'],
    onPieces: 'first',
    wish: 'top left',
    wanted: 0.1,
    style: shippedStyles[0]?.style,
  };
  const project = {
    name: 'Week 1',
    finishId: 'crisp',
    keeping: { words: true, position: false, device: false, profile: false },
    composing: 'marks',
    lettering: [item],
    posting: { caption: 'Come along', tags: '#kites' },
    pins: { sunpane: 2 },
    pattern: '{name}',
    usualPlaces: [],
    usualAim: null,
    originals: [],
    frames: [frame('a', 'one/post'), frame('b', 'one/post'), frame('b', 'two/story'), frame('c', 'one/post')],
  } as unknown as OpenProject;
  expect(nextProject(project)).toEqual({
    finishId: 'crisp',
    keeping: project.keeping,
    composing: 'marks',
    lettering: [{ ...item, text: 'No. 13', originalIds: null }],
    posting: project.posting,
    pins: { sunpane: 2 },
    pattern: '{name}',
    usualPlaces: ['one/post'],
    usualAim: { kind: 'as good as fits' },
  });
  expect(nextProject({ ...project, usualPlaces: ['three/cover'] }).usualPlaces).toEqual(['three/cover']);
});
