import {
  type LetterStyleFile,
  type LetterStyleSettings,
  type NamedLetterStyle,
  NamedLetterStyleSchema,
} from '@inkwell/core/model';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { z } from 'zod';
import { api, ask, tell } from '../client.ts';

/** The styles of words that people made. */
export function useLetterStyles() {
  return useQuery({
    queryKey: ['letter-styles'],
    queryFn: () => ask(z.array(NamedLetterStyleSchema), '/letter-styles'),
  });
}

export function useLetterStyleActions() {
  const client = useQueryClient();
  const onSuccess = () => client.invalidateQueries({ queryKey: ['letter-styles'] });
  const post = (path: string, body: unknown): Promise<NamedLetterStyle> =>
    ask(NamedLetterStyleSchema, path, { method: 'POST', body });
  return {
    add: useMutation({
      mutationFn: (settings: LetterStyleSettings) => post('/letter-styles', settings),
      onSuccess,
    }),
    read: useMutation({ mutationFn: (file: LetterStyleFile) => post('/letter-styles/import', file), onSuccess }),
    remove: useMutation({ mutationFn: (id: string) => tell(`/letter-styles/${id}`, { method: 'DELETE' }), onSuccess }),
    restore: useMutation({
      mutationFn: (id: string) => tell(`/letter-styles/${id}/restore`, { method: 'POST' }),
      onSuccess,
    }),
  };
}

/** A style as a file to keep or to pass on. */
export const letterStyleFileUrl = (id: string) => `${api}/letter-styles/${id}/file`;
