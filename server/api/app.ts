import { existsSync } from 'node:fs';
import { join } from 'node:path';
import express, { type Express } from 'express';
import helmet from 'helmet';
import { pinoHttp } from 'pino-http';
import type { Services } from '../services.ts';
import type { Settings } from '../settings.ts';
import { notFound } from '../userError.ts';
import { findAsking } from './access.ts';
import { answerErrors } from './errors.ts';
import { ownHostOnly } from './guard.ts';
import { openApi } from './openApi.ts';
import { resources } from './resources/index.ts';
import { watching } from './watching.ts';

/** The whole application: the API under `/api`, the built interface under everything else. */
export function makeApp(services: Services, settings: Pick<Settings, 'INKWELL_WEB' | 'INKWELL_TOKENS'>): Express {
  const app = express();
  const webFolder = settings.INKWELL_WEB;
  app.disable('x-powered-by');
  app.use(pinoHttp({ logger: services.log, autoLogging: { ignore: (request) => request.method === 'GET' } }));
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
      strictTransportSecurity: false,
    }),
  );
  app.use(ownHostOnly);
  // What the API answers is about now; the few answers that hold for ever say so themselves.
  app.use('/api', (_request, response, next) => {
    response.setHeader('Cache-Control', 'no-store');
    next();
  });
  app.use(['/api/v1', '/metrics'], findAsking(services, settings.INKWELL_TOKENS));
  app.use(watching(services));
  const served = resources(services);
  const described = openApi(served.flatMap(({ routes }) => routes));
  app.get('/api/v1/openapi.json', (_request, response) => {
    response.json(described);
  });
  for (const { path, router } of served) app.use(`/api/v1${path}`, router);
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
  app.use(answerErrors(services.log));
  return app;
}
