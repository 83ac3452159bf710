import { isAboutWords } from '@inkwell/core/checking';
import type { ProjectFrame } from '../projectFrames.ts';

/** What is wrong with the words of each picture, by its id: each sentence once, with the places where it holds. */
export function wordFindings(frames: readonly ProjectFrame[]): ReadonlyMap<string, string[]> {
  const places = new Map<string, Map<string, string[]>>();
  for (const { original, at, findings } of frames) {
    for (const { text } of findings.filter(isAboutWords)) {
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
