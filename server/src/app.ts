import 'reflect-metadata';
import { join } from 'node:path';
import { ConsoleLogger, type INestApplication } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { DocumentBuilder, SwaggerModule } from '@nestjs/swagger';
import compression from 'compression';
import express, { type Express } from 'express';
import helmet from 'helmet';
import { AppModule } from './app.module.ts';
import { refuseUnkeepable } from './common/keepable.ts';
import { reviewLimits } from './common/review-limits.ts';
import { reviewOnly, studioOnly } from './common/studio.guard.ts';
import type { Config } from './config.ts';

/** The whole server, ready to listen. */
export async function createApp(config: Config, options: { quiet?: boolean } = {}): Promise<INestApplication> {
  const app = await NestFactory.create<NestExpressApplication>(AppModule.with(config), {
    bodyParser: false,
    logger: options.quiet ? false : new ConsoleLogger({ json: true }),
  });
  app.disable('x-powered-by');
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'self'"],
          // Compiled shaders and codecs need WebAssembly; nothing needs eval.
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          workerSrc: ["'self'", 'blob:'],
          imgSrc: ["'self'", 'data:', 'blob:'],
          mediaSrc: ["'self'", 'blob:'],
          styleSrc: ["'self'", "'unsafe-inline'"],
          connectSrc: ["'self'", 'blob:'],
          frameAncestors: ["'none'"],
          upgradeInsecureRequests: null,
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.set('trust proxy', config.trustProxy);
  app.use(
    compression({
      // Events must not wait for more of them; files are what they are.
      filter: (request, response) =>
        !request.url.includes('/files/') &&
        !String(response.getHeader('Content-Type')).startsWith('text/event-stream') &&
        compression.filter(request, response),
    }),
  );
  for (const limit of reviewLimits(config.reviewLimits)) app.use('/api/review', limit);
  // Files are streamed: only these routes have their bodies read whole.
  app.use(['/api/projects', '/api/live'], express.json({ limit: '8mb', strict: true }), refuseUnkeepable);
  app.use(['/api/docs', '/api/docs-json', '/api/openapi.json'], studioOnly);
  documentApi(app);
  if (config.webFolder) serveWeb(app.getHttpAdapter().getInstance() as Express, config.webFolder);
  await app.init();
  return app;
}

function documentApi(app: INestApplication): void {
  const description = new DocumentBuilder()
    .setTitle('Eskovan')
    .setDescription('The studio’s own interface. Every body is checked against the schema shown.')
    .setVersion('1')
    .build();
  SwaggerModule.setup('api/docs', app, () => SwaggerModule.createDocument(app, description), {
    jsonDocumentUrl: 'api/openapi.json',
  });
}

/** The built application. The studio's pages and the client's come by different doors. */
function serveWeb(server: Express, folder: string): void {
  server.use('/assets', express.static(join(folder, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }));
  server.use(
    express.static(folder, {
      index: false,
      extensions: false,
      setHeaders: (response) => response.setHeader('Cache-Control', 'no-cache'),
    }),
  );
  const page = (file: string) => (_request: express.Request, response: express.Response) =>
    response.sendFile(join(folder, file), {
      cacheControl: false,
      headers: { 'Cache-Control': 'no-cache' },
      dotfiles: 'allow',
    });
  server.get('/review/:token', reviewOnly, page('review.html'));
  server.get(/^\/(?!api\/).*/, studioOnly, page('index.html'));
}
