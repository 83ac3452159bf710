import './NeutralPage.css';
import type { DryRun, DryRunFile, Purpose, ShownAt } from '@inkwell/core/model';
import type { ReactNode } from 'react';
import { runPictureUrl } from '../../api/projects/dryRuns.ts';
import { PostPicture } from './PostPicture.tsx';

/** A page as wide as this or less is drawn as a phone's, in CSS pixels. */
const phoneWidth = 420;

/** What kind of page a place is met on. */
const pages: Record<Purpose, 'feed' | 'story' | 'list' | 'round' | 'head' | 'link' | 'cards' | 'article'> = {
  post: 'feed',
  story: 'story',
  thumbnail: 'list',
  profile: 'round',
  cover: 'head',
  banner: 'head',
  link: 'link',
  card: 'cards',
  inline: 'article',
};

/** A file on a page of no network in particular, at the width at which it is shown: as delivered, and as shown. */
export function NeutralPage({ run, file, at }: { run: DryRun; file: DryRunFile; at: ShownAt | null }) {
  const spec = file.line.placeThen?.spec;
  const width = at?.shownWidth ?? spec?.shownWidths[0];
  if (!spec || !width) {
    return (
      <p className="neutral-none quiet">
        The sheet does not say at which width this place is shown: there is no page to show it on.
      </p>
    );
  }
  const kind = pages[spec.purpose];
  const sides = at ? (['delivered', 'shown'] as const) : (['delivered'] as const);
  return (
    <div className="neutral-pages" data-wide={width > phoneWidth}>
      {sides.map((side) => (
        <figure key={side}>
          <figcaption className="small">{side === 'shown' ? 'As shown' : 'Delivered'}</figcaption>
          <Page kind={kind} width={width}>
            {side === 'shown' && at?.screen && spec.group?.kind !== 'quilt' ? (
              // Mask, controls, gaps and fold are the network's own here.
              <img
                className="network-screen"
                alt={`${spec.name}, as the network shows it`}
                src={runPictureUrl(run, at.screen)}
              />
            ) : (
              <PostPicture run={run} file={file} spec={spec} width={width} side={side} withControls />
            )}
          </Page>
        </figure>
      ))}
    </div>
  );
}

/** Lines that stand for words. @param widths in per cent */
function Lines({ widths }: { widths: readonly number[] }) {
  return (
    <span className="neutral-lines" aria-hidden="true">
      {widths.map((width) => (
        <span key={width} style={{ width: `${width}%` }} />
      ))}
    </span>
  );
}

/** What stands above and below a picture that fills its page's width: lines in per cent, and whether its author stands above it. */
const around = {
  feed: { hasAuthor: true, above: [], below: [30, 94, 66] },
  head: { hasAuthor: false, above: [], below: [44, 70, 28] },
  link: { hasAuthor: false, above: [], below: [22, 88, 60] },
  article: { hasAuthor: false, above: [96, 92, 97, 60], below: [94, 98, 42] },
} as const;

/** Rows of a list: the lines beside each picture, and what a picture of the others looks like. */
const rows = {
  list: { lines: [92, 74, 38], ratio: '16 / 9', rounding: 0 },
  round: { lines: [36, 90, 62], ratio: '1', rounding: '50%' },
} as const;
/** Room beside a picture in a list, in CSS pixels. */
const beside = 230;

function Page({ kind, width, children }: { kind: (typeof pages)[Purpose]; width: number; children: ReactNode }) {
  if (kind === 'story') return <div className="neutral-page">{children}</div>;
  if (kind === 'cards') {
    return (
      <div className="neutral-page neutral-cards">
        <span className="neutral-blank" style={{ width, height: width * 0.9 }} aria-hidden="true" />
        <span>{children}</span>
        <span className="neutral-blank" style={{ width, height: width * 1.3 }} aria-hidden="true" />
      </div>
    );
  }
  if (kind === 'list' || kind === 'round') {
    const { lines, ratio, rounding } = rows[kind];
    const other = (
      <span
        className="neutral-blank"
        style={{ width, aspectRatio: ratio, borderRadius: rounding }}
        aria-hidden="true"
      />
    );
    return (
      <div className="neutral-page" style={{ width: width + beside }}>
        {[other, children, other].map((picture, row) => (
          <div key={`${row * 1}`} className="neutral-row">
            {picture}
            <Lines widths={lines} />
          </div>
        ))}
      </div>
    );
  }
  const { hasAuthor, above, below } = around[kind];
  return (
    <div className="neutral-page" style={{ width }}>
      {hasAuthor && (
        <div className="neutral-row">
          <span className="neutral-blank neutral-author" aria-hidden="true" />
          <Lines widths={[40, 24]} />
        </div>
      )}
      {above.length > 0 && <Text widths={above} />}
      {children}
      <Text widths={below} />
    </div>
  );
}

const Text = ({ widths }: { widths: readonly number[] }) => (
  <div className="neutral-pad">
    <Lines widths={widths} />
  </div>
);
