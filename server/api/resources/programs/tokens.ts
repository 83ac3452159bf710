import { MadeTokenSchema, NewTokenSchema, TokenSchema } from '@inkwell/core/model';
import { z } from 'zod';
import type { Services } from '../../../services.ts';
import { listTokens, withdrawToken } from '../../../store/access/tokens.ts';
import { makeToken } from '../../../tasks/access/tokens.ts';
import { orNotFound } from '../../../userError.ts';
import { personAsking } from '../../access.ts';
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
    ({ body }, response) => makeToken(services, body, personAsking(response)?.id ?? null),
  );

  routes.delete('/:id', { does: 'Withdraws a token for good.', ...pagesOnly }, async ({ id }, response) => {
    orNotFound(await withdrawToken(db, id, personAsking(response)?.id ?? null), 'This token');
  });

  return routes;
}
