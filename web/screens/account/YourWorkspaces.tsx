import { type Workspace, WorkspaceNameSchema } from '@inkwell/core/model';
import { Button } from 'antd';
import { type FormEvent, useState } from 'react';
import { useWorkspaces, workspaceBase } from '../../api/access/workspaces.ts';
import { sentenceOf } from '../../api/client.ts';
import { WordField } from '../../parts/fields/WordField.tsx';
import { roleWords } from '../people/roleWords.ts';

/** The workspaces that somebody is in; an owner makes further ones. */
export function YourWorkspaces({ all, current }: { all: readonly Workspace[]; current: Workspace }) {
  return (
    <section className="sheet page-part" aria-labelledby="workspaces-title">
      <h2 id="workspaces-title">Your workspaces</h2>
      <p className="quiet small">
        A workspace has its own pictures, projects, sheets, finishes, lettering and people. Nothing of it is seen in
        another.
      </p>
      <ul className="session-list">
        {all.map((one) => (
          <li key={one.id}>
            <a href={`${workspaceBase(one)}/`}>{one.name}</a> {one.id === current.id && <strong>(this one)</strong>}
            <br />
            <span className="quiet small">You are {roleWords[one.role].as}.</span>
          </li>
        ))}
      </ul>
      {current.role === 'owner' && <NewWorkspace />}
    </section>
  );
}

function NewWorkspace() {
  const { make } = useWorkspaces();
  const [name, setName] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    make.mutate(name);
  };
  return (
    <form className="account-form" onSubmit={submit}>
      <WordField
        label="Name of a further workspace"
        value={name}
        filling="off"
        maxLength={80}
        help="It is empty, and you own it. Invite the others there."
        onChange={setName}
      />
      {make.error && (
        <p role="alert" className="small account-problem">
          {sentenceOf(make.error)}
        </p>
      )}
      <Button htmlType="submit" disabled={!WorkspaceNameSchema.safeParse(name).success} loading={make.isPending}>
        Make the workspace
      </Button>
    </form>
  );
}
