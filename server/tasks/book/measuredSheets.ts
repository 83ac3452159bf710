import { differences } from '@inkwell/core/dryRunning';
import type { DryRunOutcome, ManifestFile, SheetFinding } from '@inkwell/core/model';
import type { Services } from '../../services.ts';
import { findSheetFinding, type NewFinding, setFindingState } from '../../store/library/sheetFindings.ts';
import { framesAffected } from '../../store/projects/frames.ts';
import { orNotFound } from '../../userError.ts';
import { checkVersion, saveAndMeasure } from '../plans/saveAndMeasure.ts';
import type { Book } from './specBook.ts';

const what = 'This finding';

/** A file that was uploaded, with what became of it. */
export interface Outcome {
  line: ManifestFile;
  outcome: DryRunOutcome;
}

/**
 * What files that were uploaded say against the spec book as it is now. Only of sheets that ship: on a sheet of their own people write
 * what they know themselves.
 */
export function findingsIn({ sheets, places }: Book, dryRunId: string, outcomes: readonly Outcome[]): NewFinding[] {
  return outcomes.flatMap(({ line, outcome }) => {
    const id = line.placeThen?.id ?? '';
    const at = places.get(id);
    const sheet = sheets.find(({ slug }) => slug === at?.network.slug);
    if (!at || !sheet || at.place.own) return [];
    return differences(line, outcome, { place: at.place, after: sheet.afterUpload }).map(
      ({ of, change, said, measured }): NewFinding => ({
        network: sheet.slug,
        place: of === 'place' ? at.place.slug : null,
        change,
        said,
        measured,
        dryRunId,
      }),
    );
  });
}

/**
 * Takes a measured number over into the spec book, puts it aside, or takes that back; asks for what has to be measured anew of the
 * frames that it touches.
 *
 * @throws UserError with the finding as it is now where that was changed elsewhere
 */
export const changeFinding = (
  services: Pick<Services, 'db' | 'planner'>,
  id: string,
  version: number,
  state: SheetFinding['state'],
): Promise<SheetFinding> =>
  saveAndMeasure(
    services,
    async (tx) => {
      const current = orNotFound(await findSheetFinding(tx, id), what);
      checkVersion(current, version, 'This was changed in another window. Look at it again.');
      return orNotFound(await setFindingState(tx, id, version, state), what);
    },
    // What holds for all of a network is about what it shows, from which no plan follows.
    async (tx, { network, place }) => (place === null ? [] : framesAffected(tx, { placeIds: [`${network}/${place}`] })),
  );
