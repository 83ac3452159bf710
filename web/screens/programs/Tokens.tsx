import type { Token, TokenScope } from '@inkwell/core/model';
import { Button, Input, Popconfirm, Select } from 'antd';
import { useState } from 'react';
import { useTokens } from '../../api/access/programs.ts';
import { Listed } from '../../parts/making/Listed.tsx';
import { ListTable } from '../../parts/making/ListTable.tsx';
import { Making } from '../../parts/making/Making.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { ago, dayOf } from '../../parts/when.ts';

const scopes = [
  { value: 'change', label: 'Look and change' },
  { value: 'look', label: 'Only look' },
] satisfies { value: TokenScope; label: string }[];
const scopeWords = Object.fromEntries(scopes.map(({ value, label }) => [value, label]));
const durations = [
  { value: 30, label: 'for 30 days' },
  { value: 365, label: 'for a year' },
  { value: 0, label: 'until it is withdrawn' },
];

/** What programs ask the API with: made here, and withdrawn. */
export function Tokens() {
  const { query, make, withdraw } = useTokens();
  const note = useUndoNote();
  const [name, setName] = useState('');
  const [may, setMay] = useState<TokenScope>('change');
  const [days, setDays] = useState(365);
  const makeOne = async () => {
    const { secret } = await make.mutateAsync({ name, may, days: days || null });
    setName('');
    return secret;
  };
  return (
    <section className="sheet page-part" aria-labelledby="tokens-title">
      <h2 id="tokens-title">Tokens</h2>
      <p className="quiet small">
        A program shows its token in the header <code>Authorization: Bearer …</code>. When a token is withdrawn, its
        program is refused from then on.
      </p>
      <Making told="This is the new token." button="Make a token" isReady={name.trim() !== ''} make={makeOne}>
        <Input
          aria-label="What the token is for"
          placeholder="What it is for, such as Night script"
          value={name}
          maxLength={60}
          style={{ width: 280 }}
          onChange={({ target }) => setName(target.value)}
        />
        <Select aria-label="What it may do" value={may} options={scopes} onChange={setMay} style={{ width: 160 }} />
        <Select
          aria-label="How long it holds"
          value={days}
          options={durations}
          onChange={setDays}
          style={{ width: 180 }}
        />
      </Making>
      <Listed query={query} none="No program has a token yet.">
        {(all) => (
          <ListTable heads={['For', 'Begins with', 'May', 'Holds until', 'Last used']}>
            {all.map((token) => (
              <TokenRow
                key={token.id}
                token={token}
                onWithdraw={() => withdraw.mutateAsync(token.id).catch(note.failed)}
              />
            ))}
          </ListTable>
        )}
      </Listed>
    </section>
  );
}

function TokenRow({ token, onWithdraw }: { token: Token; onWithdraw: () => Promise<unknown> }) {
  const { name, beginning, may, endsAt, lastUsedAt } = token;
  const hasEnded = endsAt !== null && Date.parse(endsAt) <= Date.now();
  return (
    <tr className={hasEnded ? 'has-ended' : ''}>
      <th scope="row">{name}</th>
      <td data-label="Begins with">
        <code>{beginning}…</code>
      </td>
      <td data-label="May">{scopeWords[may]}</td>
      <td data-label="Holds until">
        {endsAt === null ? 'It is withdrawn' : hasEnded ? `It ended on ${dayOf(endsAt)}` : dayOf(endsAt)}
      </td>
      <td data-label="Last used">{lastUsedAt === null ? 'Never' : ago(lastUsedAt)}</td>
      <td>
        <Popconfirm
          title={`Withdraw the token for ${name}?`}
          description="Its program is refused from then on. This cannot be undone; make another instead."
          okText="Withdraw"
          cancelText="Keep it"
          onConfirm={onWithdraw}
        >
          <Button size="small" aria-label={`Withdraw the token for ${name}`}>
            Withdraw …
          </Button>
        </Popconfirm>
      </td>
    </tr>
  );
}
