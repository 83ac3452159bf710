import { DoorSchema, FactorOfferSchema, RecoveryCodesSchema, SessionSchema } from '@inkwell/core/model';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import { ask, tell } from '../client.ts';
import { doorKey, goOnAs } from './door.ts';

const sessionsKey = ['sessions'];

/** What people can do with their own account. */
export function useAccount() {
  const client = useQueryClient();
  const seeDoor = () => client.invalidateQueries({ queryKey: doorKey });
  return {
    rename: useMutation({
      mutationFn: (name: string) => tell('/me', { method: 'PATCH', body: { name } }),
      onSuccess: seeDoor,
    }),
    changePassword: useMutation({
      mutationFn: (body: { password: string; wanted: string }) =>
        ask(DoorSchema, '/me/password', { method: 'POST', body }),
      onSuccess: (door) => goOnAs(client, door),
    }),
    offerFactor: useMutation({
      mutationFn: (password: string) =>
        ask(FactorOfferSchema, '/me/second-factor', { method: 'POST', body: { password } }),
    }),
    confirmFactor: useMutation({
      mutationFn: (code: string) =>
        ask(RecoveryCodesSchema, '/me/second-factor/confirm', { method: 'POST', body: { code } }),
      onSuccess: seeDoor,
    }),
    dropFactor: useMutation({
      mutationFn: (password: string) => tell('/me/second-factor/drop', { method: 'POST', body: { password } }),
      onSuccess: seeDoor,
    }),
  };
}

/** Where somebody is signed in. */
export function useSessions() {
  const client = useQueryClient();
  const onSuccess = () => client.invalidateQueries({ queryKey: sessionsKey });
  return {
    query: useQuery({ queryKey: sessionsKey, queryFn: () => ask(z.array(SessionSchema), '/me/sessions') }),
    end: useMutation({ mutationFn: (id: string) => tell(`/me/sessions/${id}`, { method: 'DELETE' }), onSuccess }),
    endOthers: useMutation({ mutationFn: () => tell('/me/sessions', { method: 'DELETE' }), onSuccess }),
  };
}
