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
import type { DoorServices } from '../../../services.ts';
import { dropFactor, renamePerson } from '../../../store/access/people.ts';
import { endSession, endSessions, listSessions } from '../../../store/access/sessions.ts';
import { note } from '../../../tasks/access/asker.ts';
import { changePassword } from '../../../tasks/access/newPassword.ts';
import { confirmSecondFactor, offerSecondFactor } from '../../../tasks/access/secondFactor.ts';
import { proveAgain } from '../../../tasks/access/signIn.ts';
import { orNotFound } from '../../../userError.ts';
import { Resource } from '../../contracts/resource.ts';
import { askerOf, type SignedIn, signedIn } from '../../door/access.ts';
import { beginSession, idleSeconds } from '../../door/sessions.ts';
import { doorOf } from './doorOf.ts';
import { accessOf } from './needsAccounts.ts';

/** Everybody may do this with their own account, and no program may. */
const own = { pagesOnly: true, needs: 'account' } as const;

/** One's own account. */
export function me(services: DoorServices): Resource {
  const db = services.whole;
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
      const proved = await changePassword(accessOf(services), person.id, body, askerOf(request, response));
      await beginSession(request, proved);
      return doorOf(services, proved.person, { request, response });
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
        askerOf(request, response),
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
      const asker = askerOf(request, response);
      const takeBack = await accessOf(services).throttling.attempt(person.email, asker);
      const codes = await confirmSecondFactor(db, person, body.code, asker);
      await takeBack();
      return { codes };
    },
  );

  routes.post(
    '/second-factor/drop',
    { does: 'Asks for no second factor any more.', ...own, takes: z.object({ password: PasswordSchema }) },
    async ({ body, request }, response) => {
      const asker = askerOf(request, response);
      const { person } = await proveAgain(accessOf(services), who(response).person.id, body.password, asker);
      await db.transaction(async (tx) => {
        await dropFactor(tx, person.id);
        await note(tx, asker, 'second factor dropped');
      });
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

  routes.delete('/sessions', { does: 'Signs you out everywhere but here.', ...own }, async ({ request }, response) => {
    const { person, session } = who(response);
    await db.transaction(async (tx) => {
      await endSessions(tx, person.id, session.id);
      await note(tx, askerOf(request, response), 'sessions ended');
    });
  });

  routes.delete(
    '/sessions/:session',
    { does: 'Signs you out of one browser.', ...own },
    async ({ params, request }, response) => {
      const { person } = who(response);
      await db.transaction(async (tx) => {
        orNotFound(await endSession(tx, person.id, params.session ?? ''), 'This session');
        await note(tx, askerOf(request, response), 'sessions ended');
      });
    },
  );

  return routes;
}
