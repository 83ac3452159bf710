import { useState } from 'react';
import { useAccount } from '../../api/access/account.ts';
import { NewPassword } from '../door/NewPassword.tsx';
import { ProofForm } from './ProofForm.tsx';

/** Another password. */
export function ChangePassword({ email }: { email: string }) {
  const { changePassword } = useAccount();
  const [wanted, setWanted] = useState('');
  const change = async (password: string) => {
    await changePassword.mutateAsync({ password, wanted });
    setWanted('');
  };
  return (
    <section className="sheet page-part" aria-labelledby="password-title">
      <h2 id="password-title">Password</h2>
      <p className="quiet small">A new password signs you out everywhere but here.</p>
      <ProofForm
        button="Change the password"
        isReady={wanted !== ''}
        error={changePassword.error}
        isSending={changePassword.isPending}
        onSubmit={change}
      >
        {/* Password managers ask for which account a password is. */}
        <input type="hidden" autoComplete="username" value={email} readOnly />
        <NewPassword label="New password" value={wanted} onChange={setWanted} />
      </ProofForm>
      {changePassword.isSuccess && <p role="status">The new password holds.</p>}
    </section>
  );
}
