import { daysBetween } from '@inkwell/core/bookkeeping';
import dayjs from 'dayjs';
import { counted } from '../../parts/counted.ts';

/** How long ago a number was checked: `checked 240 days ago`, `checked today`. */
export function dateWords(checkedOn: string): string {
  const age = daysBetween(checkedOn, dayjs().format('YYYY-MM-DD'));
  return age === 0 ? 'checked today' : `checked ${counted(age, 'day')} ago`;
}

/** A date as it is said: `2 Nov 2026`. */
export const dayWords = (date: string): string => dayjs(date).format('D MMM YYYY');
