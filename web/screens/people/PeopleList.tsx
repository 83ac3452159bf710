import { type Person, type Role, roles } from '@inkwell/core/model';
import { Button, Popconfirm, Select } from 'antd';
import { usePeople } from '../../api/access/people.ts';
import { Listed } from '../../parts/making/Listed.tsx';
import { ListTable } from '../../parts/making/ListTable.tsx';
import { useUndoNote } from '../../parts/useUndoNote.tsx';
import { dayOf } from '../../parts/when.ts';
import { roleWords } from './roleWords.ts';

export const roleOptions = roles.map((value) => ({ value, label: roleWords[value].name }));

/** Everybody with an account. */
export function PeopleList({ myId }: { myId: string }) {
  const { query, change, remove } = usePeople();
  const note = useUndoNote();
  const give = (person: Person, role: Role) =>
    note.after(change.mutateAsync({ id: person.id, role }), `${person.name} is ${roleWords[role].as} now.`, () =>
      change.mutateAsync({ id: person.id, role: person.role }),
    );
  return (
    <section className="sheet page-part" aria-labelledby="people-title">
      <h2 id="people-title">With an account</h2>
      <Listed query={query} none="Nobody has an account.">
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
  person: Person;
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
          title={`Take the account of ${name} away?`}
          description="It cannot be undone. What the person made stays; tokens stop holding."
          okText="Take it away"
          cancelText="Keep it"
          onConfirm={onRemove}
        >
          <Button size="small" aria-label={`Take the account of ${name} away`}>
            Take away …
          </Button>
        </Popconfirm>
      </td>
    </tr>
  );
}
