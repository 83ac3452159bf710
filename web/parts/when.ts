const relative = new Intl.RelativeTimeFormat('en', { numeric: 'auto' });
const date = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });
const minute = 60;
const hour = 60 * minute;
const day = 24 * hour;

export const dayOf = (iso: string): string => date.format(new Date(iso));

/** How long ago something was, or how soon it comes, such as “5 minutes ago”. */
export function ago(iso: string, now = Date.now()): string {
  const seconds = Math.round((Date.parse(iso) - now) / 1000);
  const size = Math.abs(seconds);
  if (size < 10) return seconds > 0 ? 'in a moment' : 'just now';
  if (size < minute) return relative.format(seconds, 'second');
  if (size < hour) return relative.format(Math.round(seconds / minute), 'minute');
  if (size < day) return relative.format(Math.round(seconds / hour), 'hour');
  return dayOf(iso);
}
