import { Webhook } from 'standardwebhooks';
import { type CallToMake, callToMake, noteTry } from '../../store/access/webhooks.ts';
import type { Database } from '../../store/database.ts';
import type { WorkTask } from '../../store/schema/index.ts';
import { UserError } from '../../userError.ts';
import type { Later } from '../later.ts';
import type { Keep } from '../plans/measurePlan.ts';
import { checkHost } from './hosts.ts';

const second = 1000;
const minute = 60 * second;
const hour = 60 * minute;
/** After each try that failed; when none is left, it is given up, a little more than a day after the first. */
const pauses = [5 * second, minute, 5 * minute, 30 * minute, 2 * hour, 6 * hour, 16 * hour];
const answerWithin = 10 * second;
/** Whoever answers so does not want to hear any more. */
const gone = 410;

interface Outcome {
  arrived: boolean;
  said: string;
  /** Whether it is of no use to try again. */
  isFinal?: boolean;
}

/**
 * Tells a webhook something, signed as the Standard Webhooks specification says. What does not arrive is tried again later; what
 * has arrived may arrive once more, under the same id, where a worker ends before it has noted that.
 *
 * @param listed hosts beside this machine that may be called
 */
export async function makeCall(
  db: Database,
  { callId }: Extract<WorkTask, { kind: 'call' }>,
  listed: readonly string[],
): Promise<Keep | Later> {
  const call = await callToMake(db, callId);
  if (!call) return async () => undefined;
  const { arrived, said, isFinal = false } = await outcomeOf(call, listed);
  if (arrived) return (tx) => noteTry(tx, callId, { state: 'arrived', said, laterMs: null });
  const laterMs = isFinal ? undefined : pauses[call.tries];
  if (laterMs === undefined) return (tx) => noteTry(tx, callId, { state: 'given up', said, laterMs: null });
  await noteTry(db, callId, { state: 'waiting', said, laterMs });
  return { laterMs };
}

async function outcomeOf(call: CallToMake, listed: readonly string[]): Promise<Outcome> {
  try {
    // The list may have become shorter since the webhook was made.
    checkHost(call.url, listed);
    const response = await send(call);
    await response.body?.cancel();
    const said = `Answered ${response.status}.`;
    return { arrived: response.ok, said, isFinal: response.status === gone };
  } catch (error) {
    if (error instanceof UserError) return { arrived: false, said: error.message, isFinal: true };
    return { arrived: false, said: wordsOf(error) };
  }
}

function send({ id, url, secret, body }: CallToMake): Promise<Response> {
  const now = new Date();
  return fetch(url, {
    method: 'POST',
    body,
    // An answer that points elsewhere could point to a host that may not be called.
    redirect: 'manual',
    signal: AbortSignal.timeout(answerWithin),
    headers: {
      'Content-Type': 'application/json',
      'webhook-id': id,
      'webhook-timestamp': String(Math.floor(now.getTime() / 1000)),
      'webhook-signature': new Webhook(secret).sign(id, now, body),
    },
  });
}

function wordsOf(error: unknown): string {
  if (error instanceof Error && error.name === 'TimeoutError') return 'Nobody answered within 10 seconds.';
  const { cause } = error instanceof Error ? error : { cause: undefined };
  const code = cause instanceof Error && 'code' in cause ? String(cause.code) : null;
  if (code === 'ECONNREFUSED') return 'Nobody listens at this address.';
  if (code === 'ENOTFOUND' || code === 'EAI_AGAIN') return 'There is no host of this name.';
  // The fetch standard keeps ports of other services from being called.
  if (cause instanceof Error && cause.message === 'bad port')
    return 'Nothing is ever called at this port. Use another.';
  return `The connection failed${code ? ` (${code})` : ''}.`;
}
