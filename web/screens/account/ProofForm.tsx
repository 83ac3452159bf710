import { Button } from 'antd';
import { type FormEvent, type ReactNode, useState } from 'react';
import { sentenceOf } from '../../api/client.ts';
import { WordField } from '../../parts/fields/WordField.tsx';

/** A form of the account that asks for the password once more; or why what was sent was not taken. */
export function ProofForm(props: {
  button: string;
  /** Whether all else is filled in. */
  isReady?: boolean;
  error: unknown;
  isSending: boolean;
  onSubmit: (password: string) => Promise<unknown>;
  children?: ReactNode;
}) {
  const { button, isReady = true, error, isSending, onSubmit, children } = props;
  const [password, setPassword] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    // What went wrong is shown below; the password stays, to be mended.
    onSubmit(password).then(
      () => setPassword(''),
      () => undefined,
    );
  };
  return (
    <form className="account-form" onSubmit={submit}>
      <WordField label="Your password" value={password} filling="current-password" onChange={setPassword} />
      {children}
      {error != null && (
        <p role="alert" className="account-problem">
          {sentenceOf(error)}
        </p>
      )}
      <Button htmlType="submit" disabled={password === '' || !isReady} loading={isSending}>
        {button}
      </Button>
    </form>
  );
}
