import type { Mail } from '@inkwell/core/model';
import { useMails } from '../../api/access/people.ts';
import { Listed } from '../../parts/making/Listed.tsx';
import { ago } from '../../parts/when.ts';

const states: Record<Mail['state'], string> = {
  kept: 'Stays here: no mail server is named',
  waiting: 'Waits to be sent',
  sent: 'Sent',
  'given up': 'Could not be sent',
};

/** What the program has written. Without a mail server, people read it here and hand it on. */
export function Mails() {
  const query = useMails();
  return (
    <section className="sheet page-part" aria-labelledby="mails-title">
      <h2 id="mails-title">Mails</h2>
      <p className="quiet small">
        Without a mail server the program keeps its mails here, and you hand them on. They open accounts: show each only
        to whom it is for.
      </p>
      <Listed query={query} none="No mail was written yet.">
        {(all) => all.map((mail) => <MailLine key={mail.id} mail={mail} />)}
      </Listed>
    </section>
  );
}

function MailLine({ mail: { to, subject, text, createdAt, state, said } }: { mail: Mail }) {
  const head = `${subject}, to ${to}`;
  return (
    <div className="mail">
      {text === null ? (
        head
      ) : (
        <details>
          <summary>{head}</summary>
          <pre>{text}</pre>
        </details>
      )}
      <p className="quiet small" style={{ margin: '4px 0 0' }}>
        {states[state]}. Written {ago(createdAt)}.{state === 'waiting' || state === 'given up' ? ` ${said ?? ''}` : ''}
      </p>
    </div>
  );
}
