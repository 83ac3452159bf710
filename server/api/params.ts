import type { Request } from 'express';
import { z } from 'zod';
import { notFound } from '../userError.ts';

/** The id in the path. @throws UserError where it is none */
export function idOf(request: Request): string {
  const id = z.uuid().safeParse(request.params.id);
  if (!id.success) throw notFound('This address');
  return id.data;
}
