import type { Step } from '@inkwell/core/model';
import { counted } from '../../parts/counted.ts';

type Did = Step['did'][number];

/** What settings are called, by the names of their columns. Those that only follow from others have none. */
const settingWords: Record<string, string> = {
  window: 'window',
  backing: 'backing',
  ring: 'ring',
  cut_out: 'cut-out',
  flatten: 'ground',
  stretch: 'stretch',
  grid: 'pieces',
  closing: 'closing panel',
  bridged: 'gaps',
  shared_quality: 'quality of pieces',
  format: 'format',
  weighing: 'weight',
  dimensions: 'dimensions',
  upload_width: 'upload width',
  finish_id: 'finish',
  blend: 'blend',
  hands: 'lettering by hand',
  posting: 'words to post',
  verdict: 'verdict',
  original_id: 'picture',
  name: 'name',
  keeping: 'what goes into files',
  composing: 'what frames are composed from',
  lettering: 'lettering',
  pins: 'versions of sheets',
  pattern: 'names of files',
  usual_places: 'usual places',
  usual_aim: 'what bytes are spent on',
  marks: 'marks',
  decided: 'proposals',
  trim: 'trim',
  words: 'words',
  rewritten: 'words in the drawing',
  deleted_at: 'put aside or taken back',
  position: 'order',
};

function namesOf({ settings }: Did): string {
  const names = settings.flatMap((setting) => settingWords[setting] ?? []);
  // A window that a hand moves is not composed any more, and one that is composed again is another.
  return (names.length === 0 ? ['window'] : names).join(', ');
}

const sentences: Record<Did['table'], Record<Did['kind'], (did: Did) => string>> = {
  projects: {
    added: () => 'Made the project',
    changed: (did) => `Set for the project: ${namesOf(did)}`,
    removed: () => 'Took the project away',
  },
  frames: {
    added: ({ count }) => `Added ${counted(count, 'frame')}`,
    changed: (did) => `Set ${counted(did.count, 'frame')}: ${namesOf(did)}`,
    removed: ({ count }) => `Took ${counted(count, 'frame')} out`,
  },
  project_originals: {
    added: ({ count }) => `Added ${counted(count, 'picture')}`,
    changed: () => 'Put the pictures into another order',
    removed: ({ count }) => `Took ${counted(count, 'picture')} out`,
  },
  originals: {
    added: ({ count }) => `Took ${counted(count, 'picture')} in`,
    changed: (did) => `Set ${counted(did.count, 'picture')}: ${namesOf(did)}`,
    removed: ({ count }) => `Cleared ${counted(count, 'picture')} away`,
  },
};

/** What comes first of what a step did at once. */
const order: Did['table'][] = ['projects', 'project_originals', 'originals', 'frames'];

/** What a step did, as sentences. */
export const stepWords = ({ did }: Step): string[] =>
  did
    .toSorted((a, b) => order.indexOf(a.table) - order.indexOf(b.table))
    .map((one) => sentences[one.table][one.kind](one));
