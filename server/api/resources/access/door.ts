import {
  type Door,
  DoorSchema,
  ForgottenSchema,
  JoinSchema,
  LinkSecretSchema,
  OpenInvitationSchema,
  ResetSchema,
  SignedInSchema,
  SignInSchema,
  TakenInvitationSchema,
} from '@inkwell/core/model';
import type { Request, Response } from 'express';
import { z } from 'zod';
import type { DoorServices } from '../../../services.ts';
import { note } from '../../../tasks/access/asker.ts';
import { acceptInvitation, joinWorkspace, openInvitation } from '../../../tasks/access/invitations.ts';
import { forgotPassword, resetPassword } from '../../../tasks/access/newPassword.ts';
import { type Proved, signIn } from '../../../tasks/access/signIn.ts';
import { orNotFound } from '../../../userError.ts';
import { Resource } from '../../contracts/resource.ts';
import { askerOf, signedIn } from '../../door/access.ts';
import { beginSession, endThisSession } from '../../door/sessions.ts';
import { doorOf } from './doorOf.ts';
import { accessOf } from './needsAccounts.ts';

/** A way in. */
const isOpen = { isOpen: true } as const;

/** Coming in and going out. */
export function door(services: DoorServices): Resource {
  const routes = new Resource('/door', 'The door');

  const letIn = async ({ person, credential }: Proved, at: { request: Request; response: Response }): Promise<Door> => {
    await beginSession(at.request, { person, credential });
    return doorOf(services, person, at);
  };

  routes.get(
    '',
    { does: 'Tells whether accounts are needed here, and who is signed in.', ...isOpen, answers: DoorSchema },
    ({ request }, response) => doorOf(services, signedIn(response)?.person ?? null, { request, response }),
  );

  routes.post(
    '/sign-in',
    {
      does: 'Signs somebody in. Answers that a code is needed where the account has a second factor and none came.',
      ...isOpen,
      takes: SignInSchema,
      answers: SignedInSchema,
    },
    async ({ body, request }, response) => {
      const who = await signIn(accessOf(services), body, askerOf(request, response));
      if (!who) return { state: 'code needed' as const };
      return { state: 'in' as const, door: await letIn(who, { request, response }) };
    },
  );

  routes.post(
    '/sign-out',
    {
      does: 'Signs out of this browser.',
      pagesOnly: true,
      needs: 'account',
      changesNothing: true,
      answers: DoorSchema,
    },
    async ({ request }, response) => {
      if (services.access) {
        await note(services.whole, askerOf(request, response), 'signed out');
        await endThisSession(request);
      }
      return doorOf(services, null, { request, response });
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
    async ({ body, request }, response) =>
      letIn(await acceptInvitation(accessOf(services), body, askerOf(request, response)), { request, response }),
  );

  routes.post(
    '/join',
    {
      does: 'Takes you into the workspace that an invitation is for. Answers its id.',
      pagesOnly: true,
      needs: 'account',
      takes: JoinSchema,
      answers: z.object({ workspaceId: z.uuid() }),
    },
    async ({ body, request }, response) => {
      const access = accessOf(services);
      const { person } = orNotFound(signedIn(response), 'This account');
      return { workspaceId: await joinWorkspace(access, person, body.secret, askerOf(request, response)) };
    },
  );

  routes.post(
    '/forgotten',
    {
      does: 'Asks for a link to a new password. The answer is the same whether there is an account with the address or not.',
      ...isOpen,
      takes: ForgottenSchema,
      status: 202,
    },
    ({ body, request }, response) => forgotPassword(accessOf(services), body.email, askerOf(request, response)),
  );

  routes.post(
    '/new-password',
    {
      does: 'Takes a new password by the link of a mail. Everybody signed in to the account is signed out.',
      ...isOpen,
      takes: ResetSchema,
    },
    ({ body, request }, response) => resetPassword(accessOf(services), body, askerOf(request, response)),
  );

  return routes;
}
