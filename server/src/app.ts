import 'reflect-metadata';
import { join } from 'node:path';
import { ConsoleLogger, type INestApplication } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { DocumentBuilder, SwaggerModule } from '@nestjs/swagger';
import express, { type Express } from 'express';
import { rateLimit } from 'express-rate-limit';
import helmet from 'helmet';
import { AppModule } from './app.module.ts';
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
  // Guessing tokens is hopeless already; this keeps the attempts cheap for us too.
  app.use('/api/review', rateLimit({ windowMs: 60_000, limit: 600, standardHeaders: true, legacyHeaders: false }));
  // Files are streamed: only the document routes have their bodies read whole.
  app.use('/api/projects', express.json({ limit: '4mb' }));
  documentApi(app);
  app.enableShutdownHooks();
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

/** The built application. Pages of the studio share one document, the client's page has its own. */
function serveWeb(server: Express, folder: string): void {
  server.use('/assets', express.static(join(folder, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }));
  server.use(express.static(folder, { index: false }));
  const page = (file: string) => (_request: express.Request, response: express.Response) =>
    response.sendFile(join(folder, file), {
      cacheControl: false,
      headers: { 'Cache-Control': 'no-cache' },
      dotfiles: 'allow',
    });
  server.get('/review/:token', page('review.html'));
  server.get(/^\/(?!api\/).*/, page('index.html'));
}
