import { Button } from 'antd';
import { useState } from 'react';

/** Something that is told once, to be copied: it can be read nowhere afterwards. */
export function ToldOnce({ what, secret, onDone }: { what: string; secret: string; onDone: () => void }) {
  const [copied, setCopied] = useState<'no' | 'yes' | 'refused'>('no');
  const copy = () =>
    navigator.clipboard.writeText(secret).then(
      () => setCopied('yes'),
      () => setCopied('refused'),
    );
  return (
    <section className="told-once" aria-label={what}>
      <p>
        <strong>{what}</strong> Copy it now: it is not kept, and cannot be shown again.
      </p>
      <code>{secret}</code>
      <div className="row">
        <Button type="primary" onClick={copy}>
          Copy
        </Button>
        <Button onClick={onDone}>I have it</Button>
        <span role="status" className="quiet small">
          {copied === 'yes' && 'Copied.'}
          {copied === 'refused' && 'The browser does not copy here. Select the text above and copy it.'}
        </span>
      </div>
    </section>
  );
}
