import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { useThreshold } from '../../api/access/door.ts';
import { DoorForm, DoorPage } from './DoorPage.tsx';
import { linkSecret } from './linkSecret.ts';
import { NewPassword } from './NewPassword.tsx';

/** Where the link of a mail leads with which somebody chooses a new password. */
export function NewPasswordScreen() {
  const { reset } = useThreshold();
  const secret = linkSecret();
  const [password, setPassword] = useState('');
  return (
    <DoorPage title="Choose a new password">
      {reset.isSuccess ? (
        <p role="status">The new password holds. You were signed out everywhere.</p>
      ) : (
        <DoorForm error={reset.error} onSubmit={() => reset.mutate({ secret, password })}>
          <NewPassword label="New password" value={password} onChange={setPassword} />
          <Button htmlType="submit" type="primary" loading={reset.isPending}>
            Take this password
          </Button>
        </DoorForm>
      )}
      <p className="door-ways">
        <Link to="/">Sign in</Link>
      </p>
    </DoorPage>
  );
}
