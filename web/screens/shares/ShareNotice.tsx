import { nearlyUsed, type ShareOf, shareWords } from '@inkwell/core/model';
import { Link } from 'react-router';
import { useOwnShares } from '../../api/access/shares.ts';

/** Says that a share is nearly used, before it is. */
export function ShareNotice() {
  const { data } = useOwnShares();
  if (!data) return null;
  const sentences = [
    ...(data.person ? sentencesOf(data.person, 'You have', 'your') : []),
    ...sentencesOf(data.workspace, 'This workspace has', 'its'),
  ];
  if (sentences.length === 0) return null;
  return (
    <p role="status" className="sheet share-notice">
      {sentences.join(' ')} <Link to="/shares">Look at the shares</Link>
    </p>
  );
}

const sentencesOf = (of: ShareOf, who: string, whose: string): string[] =>
  nearlyUsed(of).map((kind) => {
    const { amount, said } = shareWords[kind];
    return `${who} used ${amount(of.used[kind])} of ${whose} share of ${said(of.share[kind] ?? 0)}.`;
  });
