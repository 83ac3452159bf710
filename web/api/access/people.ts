import {
  DoorEventSchema,
  InvitationSchema,
  MadeInvitationSchema,
  MailSchema,
  MemberSchema,
  type NewInvitation,
  type Role,
} from '@inkwell/core/model';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import { ask, tell } from '../client.ts';
import { doorKey } from './door.ts';

const peopleKey = ['people'];
const invitationsKey = ['invitations'];
const mailsKey = ['mails'];
const doorEventsKey = ['door events'];
/** Others come in and are invited meanwhile. */
const oftenMs = 5000;

/** Everybody in this workspace. */
export function usePeople() {
  const client = useQueryClient();
  // One's own role stands at the door.
  const onSuccess = () => Promise.all([peopleKey, doorKey].map((queryKey) => client.invalidateQueries({ queryKey })));
  return {
    query: useQuery({
      queryKey: peopleKey,
      queryFn: () => ask(z.array(MemberSchema), '/people'),
      refetchInterval: oftenMs,
    }),
    change: useMutation({
      mutationFn: ({ id, role }: { id: string; role: Role }) =>
        tell(`/people/${id}`, { method: 'PATCH', body: { role } }),
      onSuccess,
    }),
    remove: useMutation({ mutationFn: (id: string) => tell(`/people/${id}`, { method: 'DELETE' }), onSuccess }),
  };
}

/** Invitations that nobody has taken yet. */
export function useInvitations() {
  const client = useQueryClient();
  const onSuccess = () =>
    Promise.all([invitationsKey, mailsKey].map((queryKey) => client.invalidateQueries({ queryKey })));
  return {
    query: useQuery({
      queryKey: invitationsKey,
      queryFn: () => ask(z.array(InvitationSchema), '/invitations'),
      refetchInterval: oftenMs,
    }),
    invite: useMutation({
      mutationFn: (body: NewInvitation) => ask(MadeInvitationSchema, '/invitations', { method: 'POST', body }),
      onSuccess,
    }),
    withdraw: useMutation({ mutationFn: (id: string) => tell(`/invitations/${id}`, { method: 'DELETE' }), onSuccess }),
  };
}

/** What the program has written to people. */
export const useMails = () =>
  useQuery({ queryKey: mailsKey, queryFn: () => ask(z.array(MailSchema), '/mails'), refetchInterval: oftenMs });

/** What happened at the door. */
export const useDoorEvents = () =>
  useQuery({
    queryKey: doorEventsKey,
    queryFn: () => ask(z.array(DoorEventSchema), '/door-events'),
    refetchInterval: oftenMs,
  });
