import { existsSync } from 'node:fs';
import { join } from 'node:path';
import express, { type Express, type RequestHandler, type Router } from 'express';
import helmet from 'helmet';
import { LRUCache } from 'lru-cache';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { loggedError } from '../running/loggedError.ts';
import type { DoorServices, OpenInside } from '../services.ts';
import type { AccessSettings } from '../settings/accessSettings.ts';
import type { Settings } from '../settings/settings.ts';
import { notFound } from '../userError.ts';
import { openApi } from './contracts/openApi.ts';
import type { Resource } from './contracts/resource.ts';
import { allowed, findAsking, personAsking, workspaceAsked } from './door/access.ts';
import { countAsked } from './door/counted.ts';
import { ownHostOnly } from './door/guard.ts';
import { answerErrors } from './errors.ts';
import { doorResources, resources } from './resources/index.ts';
import type { Streams } from './sending/streams.ts';
import { watching } from './watching.ts';

/** Where the program has to know who asks. */
const asked = ['/api/v1', '/metrics'];
/** Tells a browser for half a year that the program is reached through TLS alone. */
const throughTls = { maxAge: 15_552_000 };

/** The routes of so many people's workspaces are kept at hand. */
const mostAtHand = 200;

/** What the application works with. */
export interface AppServices {
  door: DoorServices;
  /** What the routes of a workspace work with: they reach nothing but its rows. */
  inside: OpenInside;
  streams: Streams;
  log: Logger;
}

/** All routes of some resources, each below its own path. */
function routerOf(served: readonly Resource[]): Router {
  const router = express.Router();
  for (const { path, router: own } of served) router.use(path, own);
  return router;
}

/** Leads every request to the routes of the workspace in which it is asked, for whoever asks. */
function leadInside(inside: AppServices['inside']): RequestHandler {
  const atHand = new LRUCache<string, Router>({ max: mostAtHand });
  return (request, response, next) => {
    const { id } = workspaceAsked(response);
    const personId = personAsking(response)?.id ?? null;
    const key = `${id} ${personId}`;
    const router = atHand.get(key) ?? routerOf(resources(inside(id, personId)));
    atHand.set(key, router);
    router(request, response, next);
  };
}

/**
 * The whole application: the API under `/api`, the built interface under everything else.
 *
 * @param server what keeps people signed in, null without accounts; and whether it takes no more requests soon
 */
export function makeApp(
  { door, inside, streams, log }: AppServices,
  settings: Pick<Settings, 'INKWELL_WEB' | 'INKWELL_TOKENS'>,
  { origin, isSecure, proxies }: Pick<AccessSettings, 'origin' | 'isSecure' | 'proxies'>,
  { sessions, isLeaving }: { sessions: RequestHandler | null; isLeaving: () => boolean },
): Express {
  const app = express();
  const webFolder = settings.INKWELL_WEB;
  app.disable('x-powered-by');
  // Who is no proxy may say of itself what it likes.
  app.set('trust proxy', proxies.length > 0 ? proxies : false);
  app.use(
    pinoHttp({
      logger: log,
      autoLogging: { ignore: (request) => request.method === 'GET' },
      // Headers open doors and say who asks; what stands behind the question mark is what somebody looks for.
      serializers: {
        req: ({ id, method, url }: { id: unknown; method: string; url: string }) => ({
          id,
          method,
          path: url.split('?')[0],
        }),
        res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
        err: loggedError,
      },
    }),
  );
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          // Ant Design puts its styles into the page as it runs.
          styleSrc: ["'self'", "'unsafe-inline'"],
          // Finishing runs as WebAssembly, in the browser's worker as on the server.
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          workerSrc: ["'self'", 'blob:'],
          upgradeInsecureRequests: null,
        },
      },
      strictTransportSecurity: isSecure ? throughTls : false,
    }),
  );
  app.use(ownHostOnly(origin));
  // What the API answers is about now; the few answers that hold for ever say so themselves.
  app.use('/api', (_request, response, next) => {
    response.setHeader('Cache-Control', 'no-store');
    next();
  });
  if (sessions) app.use(asked, sessions);
  app.use(asked, findAsking(door, settings.INKWELL_TOKENS));
  app.use('/api/v1', countAsked(door.counting));
  app.use(watching(door, isLeaving));
  const atDoor = doorResources(door, inside, streams);
  const described = openApi([...resources(inside(door.firstWorkspace)), ...atDoor].flatMap(({ routes }) => routes));
  app.get('/api/v1/openapi.json', allowed({ does: 'Describes the API.' }, 'get'), (_request, response) => {
    response.json(described);
  });
  app.use('/api/v1', routerOf(atDoor), leadInside(inside));
  // What the API takes and answers is told on a page of the interface.
  app.use('/api', (request, _response, next) => {
    if (request.path !== '/docs') throw notFound('This address');
    next();
  });

  const page = join(webFolder, 'index.html');
  app.use('/assets', express.static(join(webFolder, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }));
  app.use(express.static(webFolder));
  app.use((_request, response) => {
    if (existsSync(page)) response.sendFile(page, { dotfiles: 'allow' });
    else
      response.status(503).type('text').send('The interface is not built yet. Start the program with ./inkwell serve.');
  });
  app.use(answerErrors(log));
  return app;
}
