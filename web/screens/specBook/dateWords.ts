import { daysBetween } from '@inkwell/core/bookkeeping';
import dayjs from 'dayjs';
import { counted } from '../../parts/counted.ts';
import { today } from '../../parts/today.ts';

/** How long ago a number was checked: `checked 240 days ago`, `checked today`. */
export function dateWords(checkedOn: string): string {
  const age = daysBetween(checkedOn, today());
  return age === 0 ? 'checked today' : `checked ${counted(age, 'day')} ago`;
}

/** A date as it is said: `2 Nov 2026`. */
export const dayWords = (date: string): string => dayjs(date).format('D MMM YYYY');
