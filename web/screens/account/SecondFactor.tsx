import { Button, QRCode } from 'antd';
import { type FormEvent, useState } from 'react';
import { useAccount } from '../../api/access/account.ts';
import { sentenceOf } from '../../api/client.ts';
import { WordField } from '../../parts/fields/WordField.tsx';
import { ProofForm } from './ProofForm.tsx';

/** A code from a device that only its owner has, asked for beside the password. */
export function SecondFactor({ hasOne }: { hasOne: boolean }) {
  const { offerFactor, confirmFactor, dropFactor } = useAccount();
  const codes = confirmFactor.data?.codes;
  const done = () => {
    confirmFactor.reset();
    offerFactor.reset();
  };
  return (
    <section className="sheet page-part" aria-labelledby="factor-title">
      <h2 id="factor-title">Second factor</h2>
      {codes && <RecoveryCodes codes={codes} onDone={done} />}
      {!codes && hasOne && (
        <>
          <p>Signing in asks for a code of your authenticator beside the password.</p>
          <ProofForm
            button="Ask for no code any more"
            error={dropFactor.error}
            isSending={dropFactor.isPending}
            onSubmit={dropFactor.mutateAsync}
          />
        </>
      )}
      {!codes && !hasOne && !offerFactor.data && (
        <>
          <p className="quiet small">
            An authenticator on your phone shows a new code every half minute. With it, a password that somebody has
            guessed or read opens nothing.
          </p>
          <ProofForm
            button="Set up a second factor"
            error={offerFactor.error}
            isSending={offerFactor.isPending}
            onSubmit={offerFactor.mutateAsync}
          />
        </>
      )}
      {!codes && !hasOne && offerFactor.data && <FactorOffer {...offerFactor.data} confirm={confirmFactor} />}
    </section>
  );
}

type Confirm = ReturnType<typeof useAccount>['confirmFactor'];

/** What an authenticator has to know, and the code that shows that it knows. */
function FactorOffer({ secret, uri, confirm }: { secret: string; uri: string; confirm: Confirm }) {
  const [code, setCode] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    confirm.mutate(code);
  };
  return (
    <div className="factor-offer">
      <QRCode
        value={uri}
        size={176}
        type="svg"
        bordered={false}
        aria-label="The secret, to be read by an authenticator"
      />
      <form className="account-form" onSubmit={submit}>
        <p className="small" style={{ margin: 0 }}>
          Read this with your authenticator, or type the secret into it: <code>{secret.replace(/(.{4})/g, '$1 ')}</code>
        </p>
        <WordField
          label="Code that it shows now"
          value={code}
          filling="one-time-code"
          maxLength={12}
          onChange={setCode}
        />
        {confirm.error && (
          <p role="alert" className="account-problem">
            {sentenceOf(confirm.error)}
          </p>
        )}
        <Button htmlType="submit" type="primary" disabled={code.length < 6} loading={confirm.isPending}>
          Ask for a code from now on
        </Button>
      </form>
    </div>
  );
}

function RecoveryCodes({ codes, onDone }: { codes: readonly string[]; onDone: () => void }) {
  return (
    <>
      <p role="status">
        <strong>Signing in asks for a code from now on.</strong> Keep these recovery codes where you find them without
        your phone: each opens your account once. They cannot be shown again.
      </p>
      <ul className="recovery-codes">
        {codes.map((code) => (
          <li key={code}>
            <code>{code}</code>
          </li>
        ))}
      </ul>
      <Button type="primary" onClick={onDone}>
        I have kept them
      </Button>
    </>
  );
}
