import type { Role } from '@inkwell/core/model';
import type { Request, Response } from 'express';
import type { z } from 'zod';

/**
 * What whoever asks has to be: something in the workspace; an owner of the first one, who looks after the door for all; or anybody with an
 * account, in whatever workspace.
 */
export type Needed = Role | 'keeper' | 'account';

export type Method = 'get' | 'post' | 'patch' | 'delete';

/** What a route takes and answers. It is what requests are checked by, what handlers are typed by, and what the API is described by. */
export interface Contract {
  /** What it is for, in one sentence or two. */
  does: string;
  /** What its address takes behind the question mark. */
  query?: z.ZodType;
  /** The JSON that it takes. */
  takes?: z.ZodType;
  /** What is written about that JSON, where the handler has words of its own for what is wrong with it. */
  described?: z.ZodType;
  /** The largest JSON that it takes. @default 2mb */
  most?: '16mb' | '24mb';
  /** It takes a file, as a form with a part named `file`. */
  file?: true;
  /** The JSON that it answers; without it and without `sends`, nothing is answered. */
  answers?: z.ZodType;
  /** The media types of files that it sends. */
  sends?: readonly string[];
  /** @default 200, or 204 where nothing is answered */
  status?: 201 | 202;
  /** It draws a picture: only a few do so at a time. */
  draws?: true;
  /** A request that is no GET, and yet changes nothing. */
  changesNothing?: true;
  /** Only pages of the program may ask it, never a token. */
  pagesOnly?: true;
  /** Strangers may ask it: it is a way in. */
  isOpen?: true;
  /** @default 'editor' for what changes something, 'viewer' for all else */
  needs?: Needed;
}

/** A request that was checked. */
export interface Asked<Of extends Contract> {
  /** The id in the address. @throws UserError where it is none */
  readonly id: string;
  readonly params: Readonly<Record<string, string>>;
  readonly query: Of['query'] extends z.ZodType ? z.output<Of['query']> : undefined;
  readonly body: Of['takes'] extends z.ZodType ? z.output<Of['takes']> : undefined;
  /** Aborts where nobody waits for the answer any more. */
  readonly leaving: AbortSignal;
  readonly request: Request;
}

/** Returns what is answered as JSON; what sends files or nothing returns nothing. */
export type Handle<Of extends Contract> = (
  asked: Asked<Of>,
  response: Response,
) => Promise<Of['answers'] extends z.ZodType ? z.output<Of['answers']> : void>;

export interface Route {
  method: Method;
  /** Below /api/v1, with ids as `:id`. */
  path: string;
  /** The resource that it belongs to. */
  of: string;
  contract: Contract;
}
