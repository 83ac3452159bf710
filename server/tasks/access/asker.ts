import type { DoorEventKind, Person } from '@inkwell/core/model';
import { addDoorEvent, type Concerns } from '../../store/access/doorEvents.ts';
import type { Queryable } from '../../store/database.ts';

/** Who asks for something at the door. */
export interface Asker {
  /** Null where nobody is signed in. */
  person: Pick<Person, 'id' | 'name' | 'email'> | null;
  /** From which the request comes, as the network has it; null at the machine itself. */
  address: string | null;
  /** What stands in the address bar of whoever asks. */
  origin: string;
}

/** Somebody at the machine itself. */
export const atMachine = (origin: string): Asker => ({ person: null, address: null, origin });

/** Somebody as a list says who it was, when there is no account any more. */
export const nameOf = ({ name, email }: Pick<Person, 'name' | 'email'>): string => `${name} (${email})`;

/**
 * Notes what happened, in the transaction in which it does.
 *
 * @param about whom or what it was done to, where that is not whoever asks
 * @param concerns by default whoever asks, in no workspace
 */
export const note = (
  db: Queryable,
  { person, address }: Asker,
  kind: DoorEventKind,
  about: string | null = null,
  { workspaceId = null, personId = person?.id ?? null }: Partial<Concerns> = {},
) => addDoorEvent(db, { kind, who: person && nameOf(person), about, address, workspaceId, personId });
