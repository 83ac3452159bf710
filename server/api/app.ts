import { existsSync } from 'node:fs';
import { join } from 'node:path';
import express, { type Express } from 'express';
import helmet from 'helmet';
import { pinoHttp } from 'pino-http';
import type { Services } from '../services.ts';
import { notFound } from '../userError.ts';
import { answerErrors } from './errors.ts';
import { ownHostOnly } from './guard.ts';
import { deliveriesRouter } from './resources/deliveries.ts';
import { dryRunsRouter } from './resources/dryRuns.ts';
import { encodingsRouter } from './resources/encodings.ts';
import { finishesRouter } from './resources/finishes.ts';
import { fontsRouter } from './resources/fonts.ts';
import { framesRouter } from './resources/frames.ts';
import { learnedUploadsRouter } from './resources/learnedUploads.ts';
import { letterStylesRouter } from './resources/letterStyles.ts';
import { networksRouter } from './resources/networks.ts';
import { originalsRouter } from './resources/originals.ts';
import { placeSetsRouter } from './resources/placeSets.ts';
import { projectsRouter } from './resources/projects.ts';
import { sheetFindingsRouter } from './resources/sheetFindings.ts';
import { sheetsRouter } from './resources/sheets.ts';
import { specBookRouter } from './resources/specBook.ts';
import { storableOnly } from './storableOnly.ts';

/** The whole application: the API under `/api`, the built interface under everything else. */
export function makeApp(services: Services, webFolder: string): Express {
  const app = express();
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
  // A file of a whole spec book comes as one text.
  app.use('/api/spec-book', express.json({ limit: '24mb' }));
  // Thousands of frames are given back at once, with all that was set of them, and words can differ on hundreds of pictures.
  app.use('/api/projects/:id', express.json({ limit: '16mb' }));
  app.use(express.json({ limit: '2mb' }));
  app.use('/api', storableOnly);

  app.use('/api/originals', originalsRouter(services));
  app.use('/api/projects', projectsRouter(services));
  app.use('/api/frames', framesRouter(services));
  app.use('/api/frames/:id', encodingsRouter(services));
  app.use('/api/finishes', finishesRouter(services));
  app.use('/api/fonts', fontsRouter(services));
  app.use('/api/letter-styles', letterStylesRouter(services));
  app.use('/api/learned-uploads', learnedUploadsRouter(services));
  app.use('/api/place-sets', placeSetsRouter(services));
  app.use('/api/deliveries', deliveriesRouter(services));
  app.use('/api/dry-runs', dryRunsRouter(services));
  app.use('/api/networks', networksRouter(services));
  app.use('/api/sheet-findings', sheetFindingsRouter(services));
  app.use('/api/sheets', sheetsRouter(services));
  app.use('/api/spec-book', specBookRouter(services));
  app.use('/api', () => {
    throw notFound('This address');
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
