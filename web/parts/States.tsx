import { Button } from 'antd';
import type { ReactNode } from 'react';
import { sentenceOf } from '../api/client.ts';

/** What stands where something could not be shown: what happened, and a way on. */
export function Failure({ error, again }: { error: unknown; again?: () => void }) {
  return (
    <div role="alert" className="sheet" style={{ padding: 20, maxWidth: 560 }}>
      <p style={{ marginTop: 0 }}>{sentenceOf(error)}</p>
      {again && <Button onClick={again}>Try again</Button>}
    </div>
  );
}

/** The same in a line, where the rest of the screen goes on. */
export function FailureLine({ error, again }: { error: unknown; again?: () => void }) {
  return (
    <p role="alert" className="small failure-line">
      {sentenceOf(error)}{' '}
      {again && (
        <Button size="small" onClick={again}>
          Try again
        </Button>
      )}
    </p>
  );
}

/** Keeps the shape of what is being loaded, so that nothing jumps when it comes. */
export function Skeleton({ width = '100%', height }: { width?: number | string; height: number | string }) {
  return <div aria-hidden style={{ width, height, background: 'var(--rule)', opacity: 0.45, borderRadius: 3 }} />;
}

export function Empty({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="sheet" style={{ padding: '34px 30px', textAlign: 'center' }}>
      <h2>{title}</h2>
      <p className="quiet" style={{ marginBottom: 0 }}>
        {children}
      </p>
    </div>
  );
}
