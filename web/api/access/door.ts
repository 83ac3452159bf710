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

export const doorKey = ['door'];

const heard = (door: Door): Door => {
  showPageToken(door.pageToken);
  return door;
};

/** Who is here, as far as the program asks for that. */
export const useDoor = () =>
  useQuery({
    queryKey: doorKey,
    queryFn: async () => heard(await ask(DoorSchema, '/door')),
    // In another tab somebody may have come or gone.
    refetchOnWindowFocus: 'always',
    staleTime: 60_000,
  });

/** Shows what another person may see, and nothing of what the one before could. */
export function through(client: QueryClient, door: Door): void {
  heard(door);
  client.removeQueries({ predicate: ({ queryKey }) => queryKey[0] !== doorKey[0] });
  client.setQueryData(doorKey, door);
}

/** Coming in and going out. */
export function useThreshold() {
  const client = useQueryClient();
  const pass = (door: Door) => through(client, door);
  return {
    signIn: useMutation({
      mutationFn: (body: SignIn) => ask(SignedInSchema, '/door/sign-in', { method: 'POST', body }),
      onSuccess: (came) => {
        if (came.state === 'in') pass(came.door);
      },
    }),
    signOut: useMutation({ mutationFn: () => ask(DoorSchema, '/door/sign-out', { method: 'POST' }), onSuccess: pass }),
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
