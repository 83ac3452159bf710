import express, { type Request, type Response, Router } from 'express';
import { allowed } from '../door/access.ts';
import { drawing } from '../sending/drawing.ts';
import { leavingOf } from '../sending/leaving.ts';
import type { Asked, Contract, Handle, Method, Route } from './contract.ts';
import { idIn } from './params.ts';
import { storableOnly } from './storableOnly.ts';

const mostJson = '2mb';

/** Routes about one kind of thing: each with its contract, which is checked before its handler is called. */
export class Resource {
  readonly router = Router();
  readonly routes: Route[] = [];

  /**
   * @param path below /api/v1, such as `/projects`
   * @param name the things, as they are called in the description of the API
   */
  constructor(
    readonly path: string,
    readonly name: string,
  ) {}

  get = <const Of extends Contract>(path: string, contract: Of, handle: Handle<Of>) =>
    this.add('get', path, contract, handle);
  post = <const Of extends Contract>(path: string, contract: Of, handle: Handle<Of>) =>
    this.add('post', path, contract, handle);
  patch = <const Of extends Contract>(path: string, contract: Of, handle: Handle<Of>) =>
    this.add('patch', path, contract, handle);
  delete = <const Of extends Contract>(path: string, contract: Of, handle: Handle<Of>) =>
    this.add('delete', path, contract, handle);

  private add<Of extends Contract>(method: Method, path: string, contract: Of, handle: Handle<Of>): void {
    this.routes.push({ method, path: `${this.path}${path}`, of: this.name, contract });
    const answering = answer(contract, handle);
    this.router[method](
      path || '/',
      allowed(contract, method),
      ...(contract.takes ? [express.json({ limit: contract.most ?? mostJson })] : []),
      storableOnly,
      contract.draws ? drawing(answering) : answering,
    );
  }
}

/** Checks what came, and answers what the handler returns. @throws ZodError where what came is not what the contract says */
const answer =
  <Of extends Contract>(contract: Of, handle: Handle<Of>): ((request: Request, response: Response) => Promise<void>) =>
  async (request, response) => {
    const answered = await handle(checked(contract, request, response), response);
    if (contract.sends) return;
    if (contract.answers) response.status(contract.status ?? 200).json(answered);
    else response.status(contract.status ?? 204).end();
  };

function checked<Of extends Contract>(contract: Of, request: Request, response: Response): Asked<Of> {
  const params = request.params as Record<string, string>;
  const asked = {
    get id() {
      return idIn(params.id);
    },
    params,
    query: contract.query?.parse(request.query),
    body: contract.takes?.parse(request.body),
    leaving: leavingOf(response),
    request,
  };
  // The types of a contract's fields follow from the schemas that they were just parsed by.
  return asked as Asked<Of>;
}
