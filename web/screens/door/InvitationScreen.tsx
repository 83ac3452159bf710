import { Button } from 'antd';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useInvitation, useThreshold } from '../../api/access/door.ts';
import { WordField } from '../../parts/fields/WordField.tsx';
import { FailureLine, Skeleton } from '../../parts/States.tsx';
import { roleWords } from '../people/roleWords.ts';
import { DoorForm, DoorPage } from './DoorPage.tsx';
import { linkSecret } from './linkSecret.ts';
import { NewPassword } from './NewPassword.tsx';

/** Where the link of an invitation leads: somebody makes their account. */
export function InvitationScreen() {
  const secret = linkSecret();
  const { data, error, refetch } = useInvitation(secret);
  const { accept } = useThreshold();
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const submit = () =>
    accept.mutate(
      { secret, name, password, ...(data?.email === null ? { email } : {}) },
      { onSuccess: () => void navigate('/', { replace: true }) },
    );
  return (
    <DoorPage title={data?.email === null ? 'Make the first account' : 'Make your account'}>
      {!data && error && (
        <>
          <FailureLine error={error} again={() => void refetch()} />
          <p className="door-ways">
            <Link to="/">Sign in</Link>
          </p>
        </>
      )}
      {!data && !error && <Skeleton height={220} />}
      {data && (
        <>
          <p className="quiet">
            {data.email === null
              ? 'Whoever makes it owns the workspace, and invites the others.'
              : `You are invited as ${roleWords[data.role].as}. You sign in as ${data.email}.`}
          </p>
          <DoorForm error={accept.error} onSubmit={submit}>
            <WordField label="Your name" value={name} filling="name" autoFocus maxLength={80} onChange={setName} />
            {data.email === null && (
              <WordField label="E-mail address" value={email} filling="email" onChange={setEmail} />
            )}
            <NewPassword value={password} onChange={setPassword} />
            <Button htmlType="submit" type="primary" loading={accept.isPending}>
              Make the account
            </Button>
          </DoorForm>
        </>
      )}
    </DoorPage>
  );
}
