import type { Request } from 'express';
import { z } from 'zod';
import { Refusal } from '../refusal.ts';

/** The id in the path. @throws Refusal where it is none */
export function idOf(request: Request): string {
  const id = z.uuid().safeParse(request.params.id);
  if (!id.success) throw notFound('This address');
  return id.data;
}

export function notFound(what: string): Refusal {
  return new Refusal(`${what} is not there any more. Go back and reload.`, 404);
}

/** What was found, or the refusal that says it is not there. */
export function found<Value>(value: Value | null | undefined | false, what: string): Value {
  if (value === null || value === undefined || value === false) throw notFound(what);
  return value;
}
