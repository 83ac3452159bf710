import { waitingCalls } from '../../store/access/webhooks.ts';
import type { Queryable } from '../../store/database.ts';
import { addWork, priorities } from '../../store/work.ts';

/** Asks that calls are made, in the caller's transaction. Those that are asked for already are left as they are. */
export const queueCalls = (db: Queryable, calls: readonly string[]): Promise<void> =>
  addWork(
    db,
    calls.map((callId) => ({ key: `call ${callId}`, task: { kind: 'call', callId }, priority: priorities.calling })),
    true,
  );

/** Asks again for all calls that are to be made, whatever has become of the work that was asked for. */
export async function resumeCalls(db: Queryable): Promise<void> {
  await queueCalls(db, await waitingCalls(db));
}
