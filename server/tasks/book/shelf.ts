import type { Services } from '../../services.ts';
import { setAway, setOrder } from '../../store/library/sheets.ts';
import { notFound } from '../../userError.ts';
import { saving } from '../plans/saveAndMeasure.ts';
import { sheetBySlug } from './changeSheets.ts';

type Stores = Pick<Services, 'db' | 'planner'>;

/** Puts a sheet away, or takes it back: its frames stay, and it is not offered meanwhile. */
export async function putSheetAway(services: Stores, slug: string, isAway: boolean): Promise<void> {
  await sheetBySlug(services, slug);
  await setAway(services.db, slug, isAway);
}

/** Moves a sheet before another one; to the end where that is null. @throws UserError where one of them is not there */
export async function moveSheet(services: Stores, slug: string, before: string | null): Promise<void> {
  await saving(services, async (tx) => {
    const slugs = (await services.planner.open(tx)).sheets.map((sheet) => sheet.slug);
    if (!slugs.includes(slug) || (before !== null && !slugs.includes(before))) throw notFound('This sheet');
    if (before === slug) return;
    const others = slugs.filter((one) => one !== slug);
    others.splice(before === null ? others.length : others.indexOf(before), 0, slug);
    await setOrder(tx, others);
  });
}
