import { MadeTokenSchema, NewTokenSchema, TokenSchema } from '@inkwell/core/model';
import type { Response } from 'express';
import { z } from 'zod';
import type { DoorServices } from '../../../services.ts';
import { listTokens, type OfToken, withdrawToken } from '../../../store/access/tokens.ts';
import { note } from '../../../tasks/access/asker.ts';
import { makeToken } from '../../../tasks/access/tokens.ts';
import { orNotFound } from '../../../userError.ts';
import { Resource } from '../../contracts/resource.ts';
import { askerOf, personAsking, workspaceAsked } from '../../door/access.ts';

/** A token cannot make another, or withdraw one: that is done by people. Who may only look may have one that only looks. */
const pagesOnly = { pagesOnly: true, needs: 'viewer' } as const;

/** What programs ask the API with. */
export function tokens(services: DoorServices): Resource {
  const db = services.whole;
  const ofAsker = (response: Response): OfToken => ({
    workspaceId: workspaceAsked(response).id,
    personId: personAsking(response)?.id ?? null,
  });
  const routes = new Resource('/tokens', 'Tokens');

  routes.get(
    '',
    {
      does: 'Lists your tokens for this workspace that were not withdrawn.',
      ...pagesOnly,
      answers: z.array(TokenSchema),
    },
    (_asked, response) => listTokens(db, ofAsker(response)),
  );

  routes.post(
    '',
    {
      does: 'Makes a token for this workspace. What it says is told once.',
      ...pagesOnly,
      takes: NewTokenSchema,
      answers: MadeTokenSchema,
      status: 201,
    },
    ({ body, request }, response) =>
      db.transaction(async (tx) => {
        const of = ofAsker(response);
        const made = await makeToken(tx, body, of);
        await note(tx, askerOf(request, response), 'token made', body.name, { workspaceId: of.workspaceId });
        return made;
      }),
  );

  routes.delete('/:id', { does: 'Withdraws a token for good.', ...pagesOnly }, ({ id, request }, response) =>
    db.transaction(async (tx) => {
      const of = ofAsker(response);
      const name = orNotFound(await withdrawToken(tx, id, of), 'This token');
      await note(tx, askerOf(request, response), 'token withdrawn', name, { workspaceId: of.workspaceId });
    }),
  );

  return routes;
}
