import { z } from 'zod';
import { notFound } from '../../userError.ts';

/** An id in a path. @throws UserError where it is none */
export function idIn(text: string | undefined): string {
  const id = z.uuid().safeParse(text);
  if (!id.success) throw notFound('This address');
  return id.data;
}
