import { randomBytes } from 'node:crypto';
import PgStoreOf from 'connect-pg-simple';
import { csrfSync } from 'csrf-sync';
import type { Request, RequestHandler } from 'express';
import session, { type SessionData } from 'express-session';
import { LRUCache } from 'lru-cache';
import type pg from 'pg';
import type { Logger } from 'pino';
import { type KeptSession, sharedSecret } from '../../store/access/sessions.ts';
import type { Database } from '../../store/database.ts';
import { secretHash } from '../../tasks/access/linkSecrets.ts';
import type { Proved } from '../../tasks/access/signIn.ts';

declare module 'express-session' {
  interface SessionData extends KeptSession {}
}

const hour = 3600;
/** A session ends when nobody has used it for so long, */
export const idleSeconds = 12 * hour;
/** and after so long however much it is used. */
const mostSeconds = 14 * 24 * hour;
/** That one was used is noted once a minute. */
const notedMs = 60_000;

const PgStore = PgStoreOf(session);

/** Keeps sessions under hashes of what their cookies say: whoever reads the database, or a backup of it, is signed in nowhere. */
class HashedStore extends PgStore {
  private readonly noted = new LRUCache<string, true>({ max: 10_000, ttl: notedMs });

  override get(sid: string, done: (error: unknown, session?: SessionData | null) => void): void {
    super.get(secretHash(sid), done);
  }

  override set(sid: string, kept: SessionData, done?: () => void): void {
    super.set(secretHash(sid), kept, done);
  }

  override destroy(sid: string, done?: () => void): void {
    super.destroy(secretHash(sid), done);
  }

  override touch(sid: string, kept: SessionData, done?: () => void): void {
    const id = secretHash(sid);
    if (this.noted.has(id)) {
      done?.();
      return;
    }
    this.noted.set(id, true);
    super.touch(id, kept, done);
  }
}

export interface Sessions {
  handler: RequestHandler;
  stop(): void;
}

/**
 * Sessions in the database, for all servers together.
 *
 * @param isSecure whether browsers send the cookie through TLS alone
 */
export async function openSessions(db: Database, pool: pg.Pool, isSecure: boolean, log: Logger): Promise<Sessions> {
  const store = new HashedStore({
    pool,
    tableName: 'sessions',
    ttl: idleSeconds,
    errorLog: (...said: unknown[]) => log.warn({ error: said.find((one) => one instanceof Error) }, 'a session'),
  });
  const handler = session({
    store,
    secret: await sharedSecret(db, 'session cookies', randomBytes(32).toString('base64url')),
    // Of cookies that begin so, a browser takes care that they come from this host, and through TLS.
    name: isSecure ? '__Host-inkwell' : 'inkwell',
    resave: false,
    saveUninitialized: false,
    cookie: { httpOnly: true, sameSite: 'lax', secure: isSecure, path: '/' },
  });
  return {
    handler,
    stop: () => {
      store.close();
    },
  };
}

const pageTokenHeader = 'x-inkwell-page';
const { generateToken, isRequestValid } = csrfSync({
  getTokenFromRequest: ({ headers }) => headers[pageTokenHeader] as string | undefined,
});

/** Whether a request shows what only a page of this session knows. */
export const isOfOwnPage = isRequestValid;

const promised = (act: (done: (error?: unknown) => void) => void): Promise<void> =>
  new Promise((resolve, reject) => act((error) => (error ? reject(error) : resolve())));

/** Signs somebody in, under a new session: one that another could have known before is none any more. */
export async function beginSession(request: Request, { person, credential }: Proved): Promise<void> {
  await promised((done) => request.session.regenerate(done));
  const kept: KeptSession = {
    personId: person.id,
    credential,
    since: new Date().toISOString(),
    device: /Mobi|Tablet/.test(request.headers['user-agent'] ?? '') ? 'phone or tablet' : 'computer',
    address: request.ip ?? '',
  };
  Object.assign(request.session, kept);
  generateToken(request);
  await promised((done) => request.session.save(done));
}

export const endThisSession = (request: Request): Promise<void> => promised((done) => request.session.destroy(done));

/** Whether the session of a request has not been ended since it began; one without a session has none to end. */
export const isSessionAlive = ({ session, sessionStore, sessionID }: Request): Promise<boolean> =>
  session.personId === undefined
    ? Promise.resolve(true)
    : new Promise((resolve, reject) =>
        sessionStore.get(sessionID, (error: unknown, kept) => (error ? reject(error) : resolve(kept != null))),
      );

export interface HeldSession extends Pick<KeptSession, 'personId' | 'credential'> {
  /** Under which it is kept. */
  id: string;
  pageToken: string | null;
}

/** The session of a request: null without one, and where it has gone on too long. */
export function sessionOf({ session, sessionID }: Request): HeldSession | null {
  const { personId, credential, since, csrfToken } = session;
  if (!personId || !credential || !since || Date.now() - Date.parse(since) > mostSeconds * 1000) return null;
  return { id: secretHash(sessionID), personId, credential, pageToken: csrfToken ?? null };
}
