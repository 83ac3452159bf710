import { EmailSchema, type Role } from '@inkwell/core/model';
import { Button, Input, Select } from 'antd';
import { useState } from 'react';
import { useInvitations } from '../../api/access/people.ts';
import { Listed } from '../../parts/making/Listed.tsx';
import { ListTable } from '../../parts/making/ListTable.tsx';
import { Making } from '../../parts/making/Making.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { dayOf } from '../../parts/when.ts';
import { roleOptions } from './PeopleList.tsx';
import { roleWords } from './roleWords.ts';

/** How people come in. */
export function Invitations() {
  const { query, invite, withdraw } = useInvitations();
  const note = useUndoNote();
  const [email, setEmail] = useState('');
  const [role, setRole] = useState<Role>('editor');
  const inviteOne = async () => {
    const { link } = await invite.mutateAsync({ email, role });
    setEmail('');
    return link;
  };
  return (
    <section className="sheet page-part" aria-labelledby="invitations-title">
      <h2 id="invitations-title">Invitations</h2>
      <p className="quiet small">
        Whoever follows the link of an invitation within seven days makes an account, or joins with theirs.{' '}
        {roleWords[role].may}
      </p>
      <Making
        told="The mail is written. This is its link, for whoever the mail does not reach."
        button="Invite"
        isReady={EmailSchema.safeParse(email).success}
        make={inviteOne}
      >
        <Input
          type="email"
          aria-label="E-mail address of whom you invite"
          placeholder="name@studio.example"
          value={email}
          maxLength={254}
          style={{ width: 280 }}
          onChange={({ target }) => setEmail(target.value)}
        />
        <Select<Role>
          aria-label="Role of whom you invite"
          value={role}
          options={roleOptions}
          onChange={setRole}
          style={{ width: 130 }}
        />
      </Making>
      <Listed query={query} none="Nobody is invited who has not come yet.">
        {(all) => (
          <ListTable heads={['Invited', 'As', 'By', 'Holds until']}>
            {all.map((one) => (
              <tr key={one.id}>
                <th scope="row">{one.email}</th>
                <td data-label="As">{roleWords[one.role].name}</td>
                <td data-label="By">{one.invitedBy ?? 'Somebody without an account'}</td>
                <td data-label="Holds until">{dayOf(one.endsAt)}</td>
                <td>
                  <Button
                    size="small"
                    aria-label={`Withdraw the invitation of ${one.email}`}
                    onClick={() => withdraw.mutateAsync(one.id).catch(note.failed)}
                  >
                    Withdraw
                  </Button>
                </td>
              </tr>
            ))}
          </ListTable>
        )}
      </Listed>
    </section>
  );
}
