import { nearlyUsed, type ShareKind, type ShareOf, shareWords } from '@inkwell/core/model';

/** How much is used of one kind, and how much may be, with a bar. */
export function ShareUse({ kind, of }: { kind: ShareKind; of: ShareOf }) {
  const { amount } = shareWords[kind];
  const [most, used] = [of.share[kind], of.used[kind]];
  if (most === null) return <span className="share-use">{amount(used)}</span>;
  return (
    <span className="share-use" data-near={nearlyUsed(of).includes(kind)}>
      {amount(used)} <span className="quiet">of {amount(most)}</span>
      <span aria-hidden className="share-bar">
        <span style={{ width: `${Math.min(1, used / most) * 100}%` }} />
      </span>
    </span>
  );
}
