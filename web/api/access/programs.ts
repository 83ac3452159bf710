import {
  MadeTokenSchema,
  MadeWebhookSchema,
  type NewToken,
  type NewWebhook,
  TokenSchema,
  type Webhook,
  WebhookSchema,
} from '@inkwell/core/model';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import { ask, tell } from '../client.ts';

const tokensKey = ['tokens'];
const webhooksKey = ['webhooks'];
/** While something is being told, or may be told next. */
const callingMs = 1000;
const idleMs = 5000;

/** The tokens that were not withdrawn, and what can be done with them. */
export function useTokens() {
  const client = useQueryClient();
  const onSuccess = () => client.invalidateQueries({ queryKey: tokensKey });
  return {
    // When each was used last changes without anybody doing something here.
    query: useQuery({
      queryKey: tokensKey,
      queryFn: () => ask(z.array(TokenSchema), '/tokens'),
      refetchInterval: idleMs,
    }),
    make: useMutation({
      mutationFn: (body: NewToken) => ask(MadeTokenSchema, '/tokens', { method: 'POST', body }),
      onSuccess,
    }),
    withdraw: useMutation({ mutationFn: (id: string) => tell(`/tokens/${id}`, { method: 'DELETE' }), onSuccess }),
  };
}

const isCalling = ({ calls }: Webhook) => calls.some(({ state }) => state === 'waiting');

/** The webhooks, and what can be done with them. */
export function useWebhooks() {
  const client = useQueryClient();
  const onSuccess = () => client.invalidateQueries({ queryKey: webhooksKey });
  return {
    query: useQuery({
      queryKey: webhooksKey,
      queryFn: () => ask(z.array(WebhookSchema), '/webhooks'),
      refetchInterval: ({ state }) => (state.data?.some(isCalling) ? callingMs : idleMs),
    }),
    make: useMutation({
      mutationFn: (body: NewWebhook) => ask(MadeWebhookSchema, '/webhooks', { method: 'POST', body }),
      onSuccess,
    }),
    attempt: useMutation({
      mutationFn: (id: string) => tell(`/webhooks/${id}/try`, { method: 'POST' }),
      onSuccess,
    }),
    remove: useMutation({ mutationFn: (id: string) => tell(`/webhooks/${id}`, { method: 'DELETE' }), onSuccess }),
    restore: useMutation({
      mutationFn: (id: string) => tell(`/webhooks/${id}/restore`, { method: 'POST' }),
      onSuccess,
    }),
  };
}
