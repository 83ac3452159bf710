import './PeopleScreen.css';
import { useDoor } from '../../api/access/door.ts';
import { LostScreen } from '../LostScreen.tsx';
import { DoorEvents } from './DoorEvents.tsx';
import { Invitations } from './Invitations.tsx';
import { Mails } from './Mails.tsx';
import { PeopleList } from './PeopleList.tsx';

/** Who has an account, who is invited, and what was written to them and happened at the door. For owners. */
export function PeopleScreen() {
  const { data } = useDoor();
  if (data?.person?.role !== 'owner') return <LostScreen />;
  return (
    <div className="page people">
      <h1>People</h1>
      <p className="quiet page-about">Everybody here sees all projects. What somebody may do goes by the role.</p>
      <PeopleList myId={data.person.id} />
      <Invitations />
      <Mails />
      <DoorEvents />
    </div>
  );
}
