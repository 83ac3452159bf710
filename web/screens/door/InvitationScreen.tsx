import type { OpenInvitation, Person } from '@inkwell/core/model';
import { Button } from 'antd';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useDoor, useInvitation, useThreshold } from '../../api/access/door.ts';
import { useWorkspaces } from '../../api/access/workspaces.ts';
import { WordField } from '../../parts/fields/WordField.tsx';
import { FailureLine, Skeleton } from '../../parts/States.tsx';
import { roleWords } from '../people/roleWords.ts';
import { DoorForm, DoorPage } from './DoorPage.tsx';
import { linkSecret } from './linkSecret.ts';
import { NewPassword } from './NewPassword.tsx';
import { SignInScreen } from './SignInScreen.tsx';

/** Where the link of an invitation leads: somebody makes their account, or joins with the one that they have. */
export function InvitationScreen() {
  const secret = linkSecret();
  const { data, error, refetch } = useInvitation(secret);
  const { data: door } = useDoor();
  const [hasAccount, setHasAccount] = useState(false);
  // Who makes an account here is somebody from then on, and on the way to the projects.
  const [isMaking, setIsMaking] = useState(false);
  if (data && door?.person && !isMaking) return <Joining invitation={data} person={door.person} secret={secret} />;
  if (hasAccount) return <SignInScreen />;
  return (
    <Accepting
      {...{ secret, data, error }}
      again={() => void refetch()}
      onMaking={() => setIsMaking(true)}
      onSignIn={() => setHasAccount(true)}
    />
  );
}

/** Somebody who is signed in takes an invitation. */
function Joining({ invitation, person, secret }: { invitation: OpenInvitation; person: Person; secret: string }) {
  const { join } = useWorkspaces();
  const { signOut } = useThreshold();
  const { email, role, workspace } = invitation;
  const isTheirs = email === person.email;
  return (
    <DoorPage title={`Join ${workspace}`}>
      <p className="quiet">
        {isTheirs
          ? `You are invited as ${roleWords[role].as}. You join with your account ${person.email}.`
          : `This invitation is for ${email ?? 'a first account'}, and you are signed in as ${person.email}. Sign out, then follow the link again.`}
      </p>
      <DoorForm
        error={join.error ?? signOut.error}
        onSubmit={() => (isTheirs ? join.mutate(secret) : signOut.mutate())}
      >
        <Button htmlType="submit" type="primary" loading={join.isPending || signOut.isPending}>
          {isTheirs ? 'Join' : 'Sign out'}
        </Button>
      </DoorForm>
    </DoorPage>
  );
}

/** Somebody makes an account by an invitation. */
function Accepting(props: {
  secret: string;
  data: OpenInvitation | undefined;
  error: unknown;
  again: () => void;
  onMaking: () => void;
  onSignIn: () => void;
}) {
  const { secret, data, error, again, onMaking, onSignIn } = props;
  const { accept } = useThreshold();
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const submit = () => {
    onMaking();
    accept.mutate(
      { secret, name, password, ...(data?.email === null ? { email } : {}) },
      { onSuccess: () => void navigate('/', { replace: true }) },
    );
  };
  return (
    <DoorPage title={data?.email === null ? 'Make the first account' : 'Make your account'}>
      {!data && error !== null && (
        <>
          <FailureLine error={error} again={again} />
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
              : `You are invited to ${data.workspace} as ${roleWords[data.role].as}. You sign in as ${data.email}.`}
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
          {data.email !== null && (
            <p className="door-ways">
              You have an account already?{' '}
              <Button type="link" style={{ padding: 0, height: 'auto' }} onClick={onSignIn}>
                Sign in to join
              </Button>
            </p>
          )}
        </>
      )}
    </DoorPage>
  );
}
