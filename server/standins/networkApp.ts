import { setTimeout } from 'node:timers/promises';
import { type AccountAnswer, type NetworkPost, NewPostSchema, type Place, standInNotice } from '@inkwell/core/model';
import express, { type ErrorRequestHandler, type Express, type Request } from 'express';
import type { Logger } from 'pino';
import { z } from 'zod';
import { Manners } from './manners.ts';
import type { NetworkSheet } from './networkSheet.ts';
import { postScreen, profileScreen } from './processing/screen.ts';
import { Refused, spoken } from './refused.ts';
import type { StandInDatabase } from './store/database.ts';
import {
  beginPost,
  deletePost,
  emptyNetwork,
  filesOfPost,
  findPost,
  keptPicture,
  newestPictures,
  publishedCount,
  publishPost,
  type StoredPost,
  shownPicture,
} from './store/posts.ts';
import { checkPieces, placeNamed, takeFile } from './taking.ts';

/** More is not even read: no network takes files like this. */
const mostUploaded = '64mb';
const mostOnProfile = 30;
const told = { standIn: true, notice: standInNotice } as const;

const KeySchema = z.string().min(8).max(200);
const NumberSchema = z.coerce.number().int().min(1).max(100);
const WidthSchema = z.coerce.number().int().min(1).max(20_000);

export interface NetworkService {
  db: StandInDatabase;
  sheet: NetworkSheet;
  /** What a request has to bear to be answered. */
  token: string;
  log: Logger;
}

/** One simulated network as a web service. Every answer says that it is simulated. */
export function networkApp({ db, sheet, token, log }: NetworkService): Express {
  const manners = new Manners(sheet.manners);
  const app = express();
  app.disable('x-powered-by');
  app.use((_request, response, next) => {
    response.setHeader('X-Stand-In', standInNotice);
    response.setHeader('Cache-Control', 'no-store');
    next();
  });
  app.get('/', (_request, response) => {
    response.json({ ...told, network: sheet.slug, name: sheet.name });
  });
  app.use((request, _response, next) => {
    if (request.headers.authorization !== `Bearer ${token}`) throw new Refused(401, { code: 'wrong token' });
    const seconds = manners.wait(Date.now());
    if (seconds > 0) throw new Refused(429, { code: 'too many requests' }, seconds);
    next();
  });

  app.get('/account', async (_request, response) => {
    const account: AccountAnswer = {
      ...told,
      network: sheet.slug,
      name: sheet.name,
      posts: await publishedCount(db, sheet.slug),
    };
    response.json(account);
  });

  app.post('/posts', express.json({ limit: '64kb' }), async (request, response) => {
    const key = KeySchema.safeParse(request.get('idempotency-key'));
    const wanted = NewPostSchema.safeParse(request.body);
    if (!key.success || !wanted.success) throw new Refused(400, { code: 'unreadable request' });
    checkPieces(placeNamed(sheet, wanted.data.place), wanted.data.pieces);
    response.status(201).json(await answer(await beginPost(db, sheet.slug, key.data, wanted.data)));
  });

  app.get('/posts/:id', async (request, response) => {
    response.json(await answer(await postOf(request)));
  });

  app.put(
    '/posts/:id/files/:number',
    express.raw({ type: () => true, limit: mostUploaded }),
    async (request, response) => {
      const mishap = manners.upload();
      if (mishap === 'fails') throw new Refused(500, { code: 'broken' });
      if (mishap === 'breaks before it is kept') return void request.socket.destroy();
      await setTimeout(sheet.manners.slowMs);
      const isNew = await takeFile(db, sheet, await postOf(request), {
        number: numberOf(request),
        data: bodyOf(request),
        altText: altTextOf(request),
      });
      if (mishap === 'breaks before it is answered') return void request.socket.destroy();
      response.status(isNew ? 201 : 200).json(await answer(await postOf(request)));
    },
  );

  app.post('/posts/:id/publish', async (request, response) => {
    const post = await postOf(request);
    if ((await filesOfPost(db, post.id)).length < post.pieces) throw new Refused(409, { code: 'too few files' });
    await publishPost(db, post.id);
    response.json(await answer(await postOf(request)));
  });

  app.delete('/posts/:id', async (request, response) => {
    await deletePost(db, (await postOf(request)).id);
    response.status(204).end();
  });

  app.delete('/posts', async (_request, response) => {
    await emptyNetwork(db, sheet.slug);
    response.status(204).end();
  });

  app.get('/posts/:id/files/:number/kept', async (request, response) => {
    const post = await postOf(request);
    sendPicture(response, await keptPicture(db, post.id, numberOf(request)));
  });

  app.get('/posts/:id/files/:number/shown/:width', async (request, response) => {
    const post = await postOf(request);
    sendPicture(response, await shownPicture(db, post.id, numberOf(request), widthOf(request)));
  });

  app.get('/posts/:id/screen/:width', async (request, response) => {
    const post = await postOf(request);
    const place = placeNamed(sheet, post.place);
    const width = widthOf(request);
    const pieces = [];
    for (const file of await filesOfPost(db, post.id)) {
      const shown = file.shown.find((one) => one.shownWidth === width);
      const data = shown && (await shownPicture(db, post.id, file.number, width));
      if (!data) throw new Refused(404, { code: 'no such post' });
      pieces.push({ at: readingIndex(place, file.number), data, width: shown.width, height: shown.height });
    }
    if (pieces.length === 0) throw new Refused(404, { code: 'no such post' });
    pieces.sort((a, b) => a.at - b.at);
    response.type('png').send(await postScreen(place, pieces, width, post.columns));
  });

  app.get('/profile', async (_request, response) => {
    const quilt = sheet.places.find(({ group }) => group?.kind === 'quilt');
    if (quilt?.group?.kind !== 'quilt' || typeof quilt.height !== 'number') {
      throw new Refused(404, { code: 'unknown place' });
    }
    const onPage = sheet.places.filter(({ purpose }) => purpose === 'post').map(({ slug }) => slug);
    const pictures = await newestPictures(db, sheet.slug, mostOnProfile);
    const page = await profileScreen(
      pictures.filter(({ place }) => onPage.includes(place)).map(({ data }) => data),
      {
        columns: quilt.group.columns,
        tileWidth: quilt.shownWidths[0] ?? 120,
        gap: quilt.group.gap,
        ratio: quilt.width / quilt.height,
      },
    );
    response.type('png').send(page);
  });

  app.use(() => {
    throw new Refused(404, { code: 'unreadable request' });
  });

  const answerErrors: ErrorRequestHandler = (error: unknown, request, response, next) => {
    if (response.headersSent) return next(error);
    const { status, refusal, retryAfter } = refusedAs(error);
    if (status === 500) log.error({ error, network: sheet.slug, url: request.url }, 'a stand-in failed');
    if (retryAfter !== null) response.setHeader('Retry-After', retryAfter);
    response.status(status).json(spoken(refusal, sheet.words));
  };
  app.use(answerErrors);
  return app;

  async function postOf(request: Request): Promise<StoredPost> {
    const id = z.uuid().safeParse(request.params.id);
    const post = id.success ? await findPost(db, sheet.slug, id.data) : null;
    if (!post) throw new Refused(404, { code: 'no such post' });
    return post;
  }

  async function answer({
    id,
    network,
    place,
    state,
    pieces,
    columns,
    caption,
    number,
  }: StoredPost): Promise<NetworkPost> {
    return { ...told, id, network, place, state, pieces, columns, caption, number, files: await filesOfPost(db, id) };
  }
}

/** Where the file that was uploaded as this number stands, row by row, from 0. */
const readingIndex = ({ group }: Place, number: number): number =>
  group?.kind === 'block' ? (group.postingOrder[number - 1] ?? number - 1) : number - 1;

function numberOf(request: Request): number {
  const number = NumberSchema.safeParse(request.params.number);
  if (!number.success) throw new Refused(400, { code: 'unreadable request' });
  return number.data;
}

function widthOf(request: Request): number {
  const width = WidthSchema.safeParse(request.params.width);
  if (!width.success) throw new Refused(400, { code: 'unreadable request' });
  return width.data;
}

function bodyOf(request: Request): Buffer {
  if (!Buffer.isBuffer(request.body) || request.body.length === 0)
    throw new Refused(400, { code: 'unreadable request' });
  return request.body;
}

/** Header values carry no line breaks and few letters: the text comes as it would in an address. */
function altTextOf(request: Request): string {
  try {
    return decodeURIComponent(request.get('x-alternative-text') ?? '').slice(0, 5000);
  } catch {
    throw new Refused(400, { code: 'unreadable request' });
  }
}

function sendPicture(response: express.Response, data: Buffer | null): void {
  if (!data) throw new Refused(404, { code: 'no such post' });
  response.type(data.subarray(8, 12).toString('latin1') === 'WEBP' ? 'webp' : 'jpeg').send(data);
}

/** What went wrong, as it is answered: the web server's own refusals, and everything else as broken. */
function refusedAs(error: unknown): Refused {
  if (error instanceof Refused) return error;
  const status = error instanceof Error && 'status' in error ? error.status : 500;
  if (status === 413) return new Refused(413, { code: 'too heavy' });
  if (typeof status === 'number' && status < 500) return new Refused(status, { code: 'unreadable request' });
  return new Refused(500, { code: 'broken' });
}
