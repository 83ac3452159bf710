import type { EmblemItem, Lettering } from '@inkwell/core/model';
import type { Queryable } from '../../store/database.ts';
import { findOriginal } from '../../store/library/originals.ts';
import { UserError } from '../../userError.ts';

/** What an emblem shows, in one line: two that are equal show the same. */
const shownBy = ({ originalId, picture }: EmblemItem) =>
  [originalId, picture.sha256, picture.page, picture.width, picture.height, picture.hasAlpha].join(' ');

const emblemsOf = (lettering: Lettering) => lettering.filter((item) => item.kind === 'emblem');

/**
 * Makes sure that every emblem of a change is a picture that is there: one of the library, or one that the project shows already,
 * whose bytes are kept for it.
 *
 * @throws UserError in words
 */
export async function checkEmblems(db: Queryable, before: Lettering, after: Lettering): Promise<void> {
  const kept = new Set(emblemsOf(before).map(shownBy));
  for (const emblem of emblemsOf(after)) {
    if (kept.has(shownBy(emblem))) continue;
    const original = await findOriginal(db, emblem.originalId);
    if (!original) {
      throw new UserError(`The picture of ${emblem.name} is not in the library. Choose an original that is there.`);
    }
    const { id: originalId, sha256, page, width, height, hasAlpha } = original;
    const picture = { sha256, page, width, height, hasAlpha };
    if (shownBy(emblem) !== shownBy({ ...emblem, originalId, picture })) {
      throw new UserError(`${emblem.name} does not say what its original is. Take it out and add it again.`);
    }
  }
}
