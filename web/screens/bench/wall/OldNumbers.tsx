import { overdueDays } from '@inkwell/core/bookkeeping';
import { Link } from 'react-router';
import { useSpecBook } from '../../../api/library/specBook.ts';
import { counted } from '../../../parts/counted.ts';
import { today } from '../../../parts/today.ts';
import { useOpenProject } from '../../ProjectLayout.tsx';

/** Says of a network once that nobody has checked its numbers for longer than its sheet allows. */
export function OldNumbers({ slug }: { slug: string }) {
  const sheet = useSpecBook(useOpenProject()).data?.find((one) => one.slug === slug);
  const days = sheet ? overdueDays(sheet, today()) : null;
  if (days === null) return null;
  return (
    <Link
      className="old-numbers small"
      to={`/spec-book/${slug}`}
      title="Look its numbers up again, and say when you did in the spec book"
    >
      numbers checked {counted(days, 'day')} ago
    </Link>
  );
}
