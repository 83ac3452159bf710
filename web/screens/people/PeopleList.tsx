import { type Member, type Role, roles } from '@inkwell/core/model';
import { Button, Popconfirm, Select } from 'antd';
import { usePeople } from '../../api/access/people.ts';
import { Listed } from '../../parts/making/Listed.tsx';
import { ListTable } from '../../parts/making/ListTable.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { dayOf } from '../../parts/when.ts';
import { roleWords } from './roleWords.ts';

export const roleOptions = roles.map((value) => ({ value, label: roleWords[value].name }));

/** Everybody in this workspace. */
export function PeopleList({ myId }: { myId: string }) {
  const { query, change, remove } = usePeople();
  const note = useUndoNote();
  const give = (person: Member, role: Role) =>
    note.after(change.mutateAsync({ id: person.id, role }), `${person.name} is ${roleWords[role].as} now.`, () =>
      change.mutateAsync({ id: person.id, role: person.role }),
    );
  return (
    <section className="sheet page-part" aria-labelledby="people-title">
      <h2 id="people-title">In this workspace</h2>
      <Listed query={query} none="Nobody is here.">
        {(all) => (
          <ListTable heads={['Name', 'E-mail address', 'Second factor', 'Here since', 'Role']}>
            {all.map((person) => (
              <PersonRow
                key={person.id}
                person={person}
                isMe={person.id === myId}
                onGive={(role) => void give(person, role)}
                onRemove={() => remove.mutateAsync(person.id).catch(note.failed)}
              />
            ))}
          </ListTable>
        )}
      </Listed>
    </section>
  );
}

function PersonRow(props: {
  person: Member;
  isMe: boolean;
  onGive: (role: Role) => void;
  onRemove: () => Promise<unknown>;
}) {
  const { person, isMe, onGive, onRemove } = props;
  const { name, email, role, hasSecondFactor, createdAt } = person;
  return (
    <tr>
      <th scope="row">
        {name} {isMe && <span className="quiet">(you)</span>}
      </th>
      <td>{email}</td>
      <td data-label="Second factor">{hasSecondFactor ? 'Asked for' : 'None'}</td>
      <td data-label="Here since">{dayOf(createdAt)}</td>
      <td>
        <Select<Role>
          size="small"
          aria-label={`Role of ${name}`}
          value={role}
          options={roleOptions}
          onChange={onGive}
          style={{ width: 110 }}
        />
      </td>
      <td>
        <Popconfirm
          title={`Take ${name} out of this workspace?`}
          description="What the person made stays; their tokens stop holding. Who is in no other workspace loses the account, which cannot be undone."
          okText="Take out"
          cancelText="Keep"
          onConfirm={onRemove}
        >
          <Button size="small" aria-label={`Take ${name} out of this workspace`}>
            Take out …
          </Button>
        </Popconfirm>
      </td>
    </tr>
  );
}
