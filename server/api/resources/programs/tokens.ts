import { MadeTokenSchema, NewTokenSchema, TokenSchema } from '@inkwell/core/model';
import { z } from 'zod';
import type { Services } from '../../../services.ts';
import { listTokens, withdrawToken } from '../../../store/access/tokens.ts';
import { note } from '../../../tasks/access/asker.ts';
import { makeToken } from '../../../tasks/access/tokens.ts';
import { orNotFound } from '../../../userError.ts';
import { askerOf, personAsking } from '../../access.ts';
import { Resource } from '../../resource.ts';

/** A token cannot make another, or withdraw one: that is done by people. Who may only look may have one that only looks. */
const pagesOnly = { pagesOnly: true, needs: 'viewer' } as const;

/** What programs ask the API with. */
export function tokens(services: Services): Resource {
  const { db } = services;
  const routes = new Resource('/tokens', 'Tokens');

  routes.get(
    '',
    { does: 'Lists your tokens that were not withdrawn.', ...pagesOnly, answers: z.array(TokenSchema) },
    (_asked, response) => listTokens(db, personAsking(response)?.id ?? null),
  );

  routes.post(
    '',
    {
      does: 'Makes a token. What it says is told once.',
      ...pagesOnly,
      takes: NewTokenSchema,
      answers: MadeTokenSchema,
      status: 201,
    },
    ({ body, request }, response) =>
      db.transaction(async (tx) => {
        const made = await makeToken(tx, body, personAsking(response)?.id ?? null);
        await note(tx, askerOf(request, response), 'token made', body.name);
        return made;
      }),
  );

  routes.delete('/:id', { does: 'Withdraws a token for good.', ...pagesOnly }, ({ id, request }, response) =>
    db.transaction(async (tx) => {
      const name = orNotFound(await withdrawToken(tx, id, personAsking(response)?.id ?? null), 'This token');
      await note(tx, askerOf(request, response), 'token withdrawn', name);
    }),
  );

  return routes;
}
