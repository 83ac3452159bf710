import { Button } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { useThreshold } from '../../api/access/door.ts';
import { WordField } from '../../parts/fields/WordField.tsx';
import { DoorForm, DoorPage } from './DoorPage.tsx';

/** Where somebody asks for a new password. */
export function ForgottenScreen() {
  const { forgotten } = useThreshold();
  const [email, setEmail] = useState('');
  return (
    <DoorPage title="Password forgotten">
      {forgotten.isSuccess ? (
        <p role="status">
          If {forgotten.variables} has an account here, a mail with a link is on its way. The link holds for two hours.
        </p>
      ) : (
        <DoorForm error={forgotten.error} onSubmit={() => forgotten.mutate(email)}>
          <WordField
            label="E-mail address"
            value={email}
            filling="email"
            autoFocus
            help="The address with which you sign in. A link to choose a new password is sent to it."
            onChange={setEmail}
          />
          <Button htmlType="submit" type="primary" loading={forgotten.isPending}>
            Send the link
          </Button>
        </DoorForm>
      )}
      <p className="door-ways">
        <Link to="/">Back to signing in</Link>
      </p>
    </DoorPage>
  );
}
