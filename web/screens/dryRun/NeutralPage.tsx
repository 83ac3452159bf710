import './NeutralPage.css';
import type { DryRun, DryRunFile, Purpose, ShownAt } from '@inkwell/core/model';
import type { ReactNode } from 'react';
import { runPictureUrl } from '../../api/dryRuns.ts';
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

function Page({ kind, width, children }: { kind: (typeof pages)[Purpose]; width: number; children: ReactNode }) {
  const page = (className: string, content: ReactNode, inner = width) => (
    <div className={`neutral-page ${className}`} style={{ width: inner }}>
      {content}
    </div>
  );
  switch (kind) {
    case 'story':
      return page('neutral-bare', children);
    case 'list':
      return page(
        'neutral-list',
        [0, 1, 2].map((row) => (
          <div key={row} className="neutral-row">
            {row === 1 ? (
              children
            ) : (
              <span className="neutral-blank" style={{ width, aspectRatio: '16 / 9' }} aria-hidden="true" />
            )}
            <Lines widths={[92, 74, 38]} />
          </div>
        )),
        width + 210,
      );
    case 'round':
      return page(
        'neutral-list',
        [0, 1, 2].map((row) => (
          <div key={row} className="neutral-row">
            {row === 1 ? (
              children
            ) : (
              <span
                className="neutral-blank"
                style={{ width, height: width, borderRadius: '50%' }}
                aria-hidden="true"
              />
            )}
            <Lines widths={[36, 90, 62]} />
          </div>
        )),
        Math.max(300, width + 230),
      );
    case 'head':
      return page(
        'neutral-head',
        <>
          {children}
          <div className="neutral-pad">
            <Lines widths={[44, 70, 28]} />
          </div>
        </>,
      );
    case 'link':
      return page(
        'neutral-link',
        <>
          {children}
          <div className="neutral-pad">
            <Lines widths={[22, 88, 60]} />
          </div>
        </>,
      );
    case 'cards':
      return page(
        'neutral-cards',
        <>
          <span className="neutral-blank" style={{ width, height: width * 0.9 }} aria-hidden="true" />
          <span>{children}</span>
          <span className="neutral-blank" style={{ width, height: width * 1.3 }} aria-hidden="true" />
        </>,
        2 * width + 12,
      );
    case 'article':
      return page(
        'neutral-article',
        <>
          <div className="neutral-pad">
            <Lines widths={[96, 92, 97, 60]} />
          </div>
          {children}
          <div className="neutral-pad">
            <Lines widths={[94, 98, 42]} />
          </div>
        </>,
      );
    default:
      return page(
        'neutral-feed',
        <>
          <div className="neutral-who">
            <span className="neutral-blank" style={{ width: 34, height: 34, borderRadius: '50%' }} aria-hidden="true" />
            <Lines widths={[40, 24]} />
          </div>
          {children}
          <div className="neutral-pad">
            <Lines widths={[30, 94, 66]} />
          </div>
        </>,
      );
  }
}
