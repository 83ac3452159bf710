import type { ProjectFrame } from '../projectFrames.ts';

/** Kinds of findings that what is written can bring about by itself. */
const kinds: ReadonlySet<string> = new Set(['words left out', 'letters missing', 'much under words']);

/** What is wrong with the words of each picture, by its id: each sentence once, with the places where it holds. */
export function wordFindings(frames: readonly ProjectFrame[]): ReadonlyMap<string, string[]> {
  const places = new Map<string, Map<string, string[]>>();
  for (const { original, at, findings } of frames) {
    for (const { kind, text } of findings) {
      if (!kinds.has(kind)) continue;
      const ofPicture = places.get(original.id) ?? new Map<string, string[]>();
      places.set(
        original.id,
        ofPicture.set(text, [...(ofPicture.get(text) ?? []), `${at.network.name} ${at.place.name}`]),
      );
    }
  }
  return new Map(
    [...places].map(([id, texts]) => [id, [...texts].map(([text, spots]) => `${spots.join(', ')}: ${text}`)]),
  );
}
