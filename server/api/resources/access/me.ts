import {
  ChangeMeSchema,
  CodeSchema,
  DoorSchema,
  FactorOfferSchema,
  NewPasswordSchema,
  PasswordSchema,
  RecoveryCodesSchema,
  SessionSchema,
} from '@inkwell/core/model';
import type { Response } from 'express';
import { z } from 'zod';
import type { Services } from '../../../services.ts';
import { dropFactor, renamePerson } from '../../../store/access/people.ts';
import { endSession, endSessions, listSessions } from '../../../store/access/sessions.ts';
import { changePassword } from '../../../tasks/access/newPassword.ts';
import { confirmSecondFactor, offerSecondFactor } from '../../../tasks/access/secondFactor.ts';
import { proveAgain } from '../../../tasks/access/signIn.ts';
import { orNotFound } from '../../../userError.ts';
import { type SignedIn, signedIn } from '../../access.ts';
import { Resource } from '../../resource.ts';
import { beginSession, idleSeconds, sessionOf } from '../../sessions.ts';
import { addressOf } from './door.ts';
import { accessOf } from './needsAccounts.ts';

/** Everybody may do this with their own account, and no program may. */
const own = { pagesOnly: true, needs: 'viewer' } as const;

/** One's own account. */
export function me(services: Services): Resource {
  const { db } = services;
  const routes = new Resource('/me', 'Your account');
  const who = (response: Response): SignedIn => {
    accessOf(services);
    return orNotFound(signedIn(response), 'This account');
  };

  routes.patch('', { does: 'Changes how you are called.', ...own, takes: ChangeMeSchema }, async ({ body }, response) =>
    renamePerson(db, who(response).person.id, body.name),
  );

  routes.post(
    '/password',
    {
      does: 'Changes your password. You stay signed in here, and nowhere else.',
      ...own,
      takes: NewPasswordSchema,
      answers: DoorSchema,
    },
    async ({ body, request }, response) => {
      const { person } = who(response);
      const proved = await changePassword(accessOf(services), person.id, body, addressOf(request));
      await beginSession(request, proved);
      return { hasAccounts: true, person: proved.person, pageToken: sessionOf(request)?.pageToken ?? null };
    },
  );

  routes.post(
    '/second-factor',
    {
      does: 'Begins to set up a second factor: answers what an authenticator has to know.',
      ...own,
      takes: z.object({ password: PasswordSchema }),
      answers: FactorOfferSchema,
      status: 201,
    },
    async ({ body, request }, response) => {
      const { person } = await proveAgain(
        accessOf(services),
        who(response).person.id,
        body.password,
        addressOf(request),
      );
      return offerSecondFactor(db, person);
    },
  );

  routes.post(
    '/second-factor/confirm',
    {
      does: 'Asks for the second factor from now on, once a code shows that it works. Answers the codes for the day when it is lost.',
      ...own,
      takes: z.object({ code: CodeSchema }),
      answers: RecoveryCodesSchema,
    },
    async ({ body, request }, response) => {
      const { person } = who(response);
      const takeBack = await accessOf(services).throttling.attempt(person.email, addressOf(request));
      const codes = await confirmSecondFactor(db, person, body.code);
      await takeBack();
      return { codes };
    },
  );

  routes.post(
    '/second-factor/drop',
    { does: 'Asks for no second factor any more.', ...own, takes: z.object({ password: PasswordSchema }) },
    async ({ body, request }, response) => {
      const { person } = await proveAgain(
        accessOf(services),
        who(response).person.id,
        body.password,
        addressOf(request),
      );
      await db.transaction((tx) => dropFactor(tx, person.id));
    },
  );

  routes.get(
    '/sessions',
    { does: 'Lists where you are signed in.', ...own, answers: z.array(SessionSchema) },
    (_asked, response) => {
      const { person, session } = who(response);
      return listSessions(db, { ...session, personId: person.id }, session.id, idleSeconds);
    },
  );

  routes.delete('/sessions', { does: 'Signs you out everywhere but here.', ...own }, async (_asked, response) => {
    const { person, session } = who(response);
    await endSessions(db, person.id, session.id);
  });

  routes.delete(
    '/sessions/:session',
    { does: 'Signs you out of one browser.', ...own },
    async ({ params }, response) => {
      orNotFound(await endSession(db, who(response).person.id, params.session ?? ''), 'This session');
    },
  );

  return routes;
}
