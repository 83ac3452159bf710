import {
  type Door,
  DoorSchema,
  ForgottenSchema,
  LinkSecretSchema,
  OpenInvitationSchema,
  ResetSchema,
  SignedInSchema,
  SignInSchema,
  TakenInvitationSchema,
} from '@inkwell/core/model';
import type { Request, Response } from 'express';
import { z } from 'zod';
import type { Services } from '../../../services.ts';
import { acceptInvitation, openInvitation } from '../../../tasks/access/invitations.ts';
import { forgotPassword, resetPassword } from '../../../tasks/access/newPassword.ts';
import { type Proved, signIn } from '../../../tasks/access/signIn.ts';
import { signedIn } from '../../access.ts';
import { originOf } from '../../guard.ts';
import { Resource } from '../../resource.ts';
import { beginSession, endThisSession, sessionOf } from '../../sessions.ts';
import { accessOf } from './needsAccounts.ts';

/** A way in. */
const isOpen = { isOpen: true } as const;

/** From where a request comes, as far as the network says. */
export const addressOf = ({ ip }: Request): string => ip ?? '';

/** Coming in and going out. */
export function door(services: Services): Resource {
  const routes = new Resource('/door', 'The door');

  const asItIs = (response: Response): Door => {
    const inside = signedIn(response);
    return {
      hasAccounts: services.access !== null,
      person: inside?.person ?? null,
      pageToken: inside?.session.pageToken ?? null,
    };
  };
  const letIn = async (request: Request, who: Proved): Promise<Door> => {
    await beginSession(request, who);
    return { hasAccounts: true, person: who.person, pageToken: sessionOf(request)?.pageToken ?? null };
  };

  routes.get(
    '',
    { does: 'Tells whether accounts are needed here, and who is signed in.', ...isOpen, answers: DoorSchema },
    async (_asked, response) => asItIs(response),
  );

  routes.post(
    '/sign-in',
    {
      does: 'Signs somebody in. Answers that a code is needed where the account has a second factor and none came.',
      ...isOpen,
      takes: SignInSchema,
      answers: SignedInSchema,
    },
    async ({ body, request }) => {
      const who = await signIn(accessOf(services), body, addressOf(request));
      if (!who) return { state: 'code needed' as const };
      return { state: 'in' as const, door: await letIn(request, who) };
    },
  );

  routes.post(
    '/sign-out',
    { does: 'Signs out of this browser.', pagesOnly: true, changesNothing: true, answers: DoorSchema },
    async ({ request }) => {
      if (services.access) await endThisSession(request);
      return { hasAccounts: services.access !== null, person: null, pageToken: null };
    },
  );

  routes.post(
    '/invitation',
    {
      does: 'Tells what the link of an invitation is for.',
      ...isOpen,
      changesNothing: true,
      takes: z.object({ secret: LinkSecretSchema }),
      answers: OpenInvitationSchema,
    },
    ({ body }) => openInvitation(accessOf(services), body.secret),
  );

  routes.post(
    '/accept',
    {
      does: 'Makes the account that an invitation is for, and signs in.',
      ...isOpen,
      takes: TakenInvitationSchema,
      answers: DoorSchema,
      status: 201,
    },
    async ({ body, request }) => letIn(request, await acceptInvitation(accessOf(services), body)),
  );

  routes.post(
    '/forgotten',
    {
      does: 'Asks for a link to a new password. The answer is the same whether there is an account with the address or not.',
      ...isOpen,
      takes: ForgottenSchema,
      status: 202,
    },
    ({ body, request }) => forgotPassword(accessOf(services), body.email, addressOf(request), originOf(request)),
  );

  routes.post(
    '/new-password',
    {
      does: 'Takes a new password by the link of a mail. Everybody signed in to the account is signed out.',
      ...isOpen,
      takes: ResetSchema,
    },
    ({ body }) => resetPassword(accessOf(services), body.secret, body.password),
  );

  return routes;
}
