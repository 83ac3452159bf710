import './making.css';
import { Button } from 'antd';
import { type FormEvent, type ReactNode, useState } from 'react';
import { sentenceOf } from '../../api/client.ts';
import { ToldOnce } from './ToldOnce.tsx';

/** A form that makes something with a secret, which is told once; or why it could not be made. */
export function Making(props: {
  /** What the secret is, as a sentence. */
  told: string;
  button: string;
  isReady: boolean;
  /** Makes it. @returns its secret */
  make: () => Promise<string>;
  children: ReactNode;
}) {
  const { told, button, isReady, make, children } = props;
  const [secret, setSecret] = useState<string | null>(null);
  const [state, setState] = useState<'idle' | 'making' | { error: unknown }>('idle');
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (!isReady || state === 'making') return;
    setState('making');
    try {
      setSecret(await make());
      setState('idle');
    } catch (error) {
      setState({ error });
    }
  };
  return (
    <>
      {secret && <ToldOnce what={told} secret={secret} onDone={() => setSecret(null)} />}
      <form className="row wrap" onSubmit={submit}>
        {children}
        <Button htmlType="submit" type="primary" disabled={!isReady} loading={state === 'making'}>
          {button}
        </Button>
      </form>
      {typeof state === 'object' && (
        <p role="alert" className="small making-problem">
          {sentenceOf(state.error)}
        </p>
      )}
    </>
  );
}
