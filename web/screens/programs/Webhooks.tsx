import type { Webhook, WebhookCall } from '@inkwell/core/model';
import { Button, Input } from 'antd';
import { useState } from 'react';
import { useWebhooks } from '../../api/access/programs.ts';
import { Listed } from '../../parts/making/Listed.tsx';
import { ListTable } from '../../parts/making/ListTable.tsx';
import { Making } from '../../parts/making/Making.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { ago } from '../../parts/when.ts';

/** Addresses that are told when a delivery is done. */
export function Webhooks() {
  const { query, make, attempt, remove, restore } = useWebhooks();
  const note = useUndoNote();
  const [url, setUrl] = useState('');
  const makeOne = async () => {
    const { secret } = await make.mutateAsync({ url: url.trim() });
    setUrl('');
    return secret;
  };
  const removeOne = ({ id, url: address }: Webhook) =>
    note.after(remove.mutateAsync(id), `${address} hears nothing any more.`, () => restore.mutateAsync(id));
  return (
    <section className="sheet page-part" aria-labelledby="webhooks-title">
      <h2 id="webhooks-title">Webhooks</h2>
      <p className="quiet small">
        When a delivery is done, each of these addresses is told so by a POST request. It is signed, so that the program
        there can tell that it comes from here. What does not arrive is tried again for a day.
      </p>
      <Making
        told="The calls are signed by this secret."
        button="Make a webhook"
        isReady={url.trim() !== ''}
        make={makeOne}
      >
        <Input
          aria-label="Address of the webhook"
          placeholder="http://127.0.0.1:9000/delivered"
          value={url}
          maxLength={500}
          style={{ width: 450 }}
          onChange={({ target }) => setUrl(target.value)}
        />
      </Making>
      <Listed query={query} none="Nobody is told yet.">
        {(all) =>
          all.map((webhook) => (
            <article key={webhook.id} className="webhook" aria-label={webhook.url}>
              <div className="row spread wrap">
                <h3 className="webhook-address">{webhook.url}</h3>
                <span className="row">
                  <Button
                    size="small"
                    aria-label={`Try ${webhook.url}`}
                    onClick={() => attempt.mutateAsync(webhook.id).catch(note.failed)}
                  >
                    Try it
                  </Button>
                  <Button size="small" aria-label={`Remove ${webhook.url}`} onClick={() => removeOne(webhook)}>
                    Remove
                  </Button>
                </span>
              </div>
              <Calls calls={webhook.calls} />
            </article>
          ))
        }
      </Listed>
    </section>
  );
}

const typeWords: Record<WebhookCall['type'], string> = {
  'delivery.done': 'A delivery is done',
  'webhook.tried': 'Tried by hand',
};
const stateWords: Record<WebhookCall['state'], string> = {
  waiting: 'On its way',
  arrived: 'Arrived',
  'given up': 'Given up',
};
const shown = 5;

function Calls({ calls }: { calls: readonly WebhookCall[] }) {
  if (calls.length === 0) return <p className="quiet small">It was told nothing yet.</p>;
  return (
    <ListTable heads={['Told', 'When', 'State', 'What came of it']} hasActions={false}>
      {calls.slice(0, shown).map((call) => (
        <tr key={call.id}>
          <td>{typeWords[call.type]}</td>
          <td data-label="When">{ago(call.createdAt)}</td>
          <td data-label="State" className={`call-${call.state.replace(' ', '-')}`}>
            {stateWords[call.state]}
          </td>
          <td>{resultOf(call)}</td>
        </tr>
      ))}
    </ListTable>
  );
}

function resultOf({ said, tries, nextTryAt, state }: WebhookCall): string {
  const tried = tries > 1 ? ` Tried ${tries} times.` : '';
  const next = state === 'waiting' && said !== null && nextTryAt !== null ? ` Next try ${ago(nextTryAt)}.` : '';
  return said === null ? '' : `${said}${tried}${next}`;
}
