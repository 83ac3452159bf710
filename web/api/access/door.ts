import {
  type Door,
  DoorSchema,
  OpenInvitationSchema,
  SignedInSchema,
  type SignIn,
  type TakenInvitation,
} from '@inkwell/core/model';
import { type QueryClient, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { ask, showPageToken, tell } from '../client.ts';
import { forgetKept, keepFor } from './keptHere.ts';

export const doorKey = ['door'];

const heard = (door: Door): Door => {
  showPageToken(door.pageToken);
  return door;
};

/** Whether this page is being left for another: nothing is asked of whoever is here any more, such as to sign in. */
let isLeft = false;

function leaveFor(address: string): void {
  isLeft = true;
  window.location.assign(address);
}

/** Who is here, as far as the program asks for that. */
export const useDoor = () =>
  useQuery({
    queryKey: doorKey,
    queryFn: async () => {
      const door = await ask(DoorSchema, '/door');
      return isLeft ? new Promise<never>(() => undefined) : heard(door);
    },
    // In another tab somebody may have come or gone.
    refetchOnWindowFocus: 'always',
    staleTime: 60_000,
  });

/** Goes on as somebody: the same as before, or another, who sees and finds nothing of what the one before had here. */
export function goOnAs(client: QueryClient, door: Door): void {
  const isOther = door.person !== null && keepFor(door.person.id);
  if (isOther) {
    // What invites somebody is theirs, whoever was here before.
    if (window.location.pathname === '/invitation') window.location.reload();
    else leaveFor('/');
  }
  heard(door);
  client.setQueryData(doorKey, door);
  void client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== doorKey[0] });
}

/** Coming in and going out. */
export function useThreshold() {
  const client = useQueryClient();
  const pass = (door: Door) => goOnAs(client, door);
  return {
    signIn: useMutation({
      mutationFn: (body: SignIn) => ask(SignedInSchema, '/door/sign-in', { method: 'POST', body }),
      onSuccess: (came) => {
        if (came.state === 'in') pass(came.door);
      },
    }),
    signOut: useMutation({
      mutationFn: () => ask(DoorSchema, '/door/sign-out', { method: 'POST' }),
      // A page that was never open has nothing of what was seen.
      onSuccess: () => {
        forgetKept();
        leaveFor('/');
      },
    }),
    accept: useMutation({
      mutationFn: (body: TakenInvitation) => ask(DoorSchema, '/door/accept', { method: 'POST', body }),
      onSuccess: pass,
    }),
    forgotten: useMutation({
      mutationFn: (email: string) => tell('/door/forgotten', { method: 'POST', body: { email } }),
    }),
    reset: useMutation({
      mutationFn: (body: { secret: string; password: string }) => tell('/door/new-password', { method: 'POST', body }),
    }),
  };
}

/** What the link of an invitation is for. */
export const useInvitation = (secret: string) =>
  useQuery({
    queryKey: ['invitation', secret],
    queryFn: () => ask(OpenInvitationSchema, '/door/invitation', { method: 'POST', body: { secret } }),
  });
