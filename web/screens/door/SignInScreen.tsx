import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { useThreshold } from '../../api/access/door.ts';
import { WordField } from '../../parts/fields/WordField.tsx';
import { DoorForm, DoorPage } from './DoorPage.tsx';

/** Where people come in who have an account. What they wanted to see is shown afterwards. */
export function SignInScreen() {
  const { signIn } = useThreshold();
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const [code, setCode] = useState('');
  const isCodeNeeded = signIn.data?.state === 'code needed' || code !== '';
  const submit = () => signIn.mutate({ email, password, ...(code === '' ? {} : { code }) });
  return (
    <DoorPage title="Sign in">
      <DoorForm error={signIn.error} onSubmit={submit}>
        <WordField label="E-mail address" value={email} filling="email" autoFocus onChange={setEmail} />
        <WordField label="Password" value={password} filling="current-password" onChange={setPassword} />
        {isCodeNeeded && (
          <WordField
            label="Code"
            value={code}
            filling="one-time-code"
            autoFocus
            maxLength={40}
            help="The six digits that your authenticator shows now. Without it, one of the recovery codes that you have kept."
            onChange={setCode}
          />
        )}
        <Button htmlType="submit" type="primary" loading={signIn.isPending}>
          Sign in
        </Button>
      </DoorForm>
      <p className="door-ways">
        <Link to="/forgotten">Password forgotten</Link>
      </p>
    </DoorPage>
  );
}
