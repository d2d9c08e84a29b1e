import 'reflect-metadata';
import { schemaParts } from '@insidia/core/schema';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { DocumentBuilder, SwaggerModule } from '@nestjs/swagger';
import type { NextFunction, Request, Response } from 'express';
import helmet from 'helmet';
import { Logger } from 'nestjs-pino';
import { guard } from './access/access';
import { onlyItsOwn } from './access/hosts';
import { EndedSessions } from './access/ended-sessions';
import { AppModule } from './app.module';
import { checkAddress, checkBody, withoutControls } from './body';
import { loadDemo } from './demo';
import { ProblemFilter } from './problem.filter';
import { ProjectsService } from './projects/projects.service';
import { checkReach, settings } from './settings';
import { InFlight, stopOn } from './stopping';

/** ms for which a connection without a request is kept. */
const KEEP_ALIVE_MS = 65_000;

/** ms between two looks for what was deleted too long ago. */
const FORGET_MS = 6 * 3600 * 1000;

async function main(): Promise<void> {
  const own = settings();
  checkReach(own);
  const { host, port, bodyLimit } = own;
  const app = await NestFactory.create<NestExpressApplication>(AppModule, { logger: false, bodyParser: false, abortOnError: false });
  const inFlight = new InFlight();
  app.use(inFlight.middleware);
  app.useLogger(app.get(Logger));
  app.use(onlyItsOwn(own));
  // Loopback is plain HTTP: nothing may be upgraded to a protocol that is not spoken there.
  app.use(
    helmet({
      strictTransportSecurity: false,
      // Without it a form of its own pages would come without an origin.
      referrerPolicy: { policy: 'same-origin' },
      contentSecurityPolicy: {
        directives: { 'upgrade-insecure-requests': null, 'style-src': ["'self'", "'unsafe-inline'"], 'worker-src': ["'self'", 'blob:'] },
      },
    }),
  );
  guard(app, app.get(EndedSessions).sessions);
  app.use(({ path, query }: Request, _response: Response, next: NextFunction) => {
    checkAddress(path, query);
    next();
  });
  app.useBodyParser('json', {
    limit: bodyLimit,
    type: ['application/json', 'application/json-patch+json'],
    strict: false,
    verify: (_request: unknown, _response: unknown, body: Buffer) => checkBody(body),
  });
  app.use(({ body }: Request, _response: Response, next: NextFunction) => {
    withoutControls(body);
    next();
  });
  const problems = new ProblemFilter();
  // A body that can't be read fails before any route is found.
  app.use((error: unknown, request: Request, response: Response, _next: NextFunction) => problems.answer(error, request, response));
  app.useGlobalFilters(problems);
  describeApi(app);
  const projects = app.get(ProjectsService);
  await projects.forget();
  setInterval(() => void projects.forget().catch(() => undefined), FORGET_MS).unref();
  await loadDemo(projects);
  await app.listen(port, host);
  // Node's five seconds close connections under clients that are about to use them again.
  app.getHttpServer().keepAliveTimeout = KEEP_ALIVE_MS;
  stopOn(app, inFlight, ['SIGTERM', 'SIGINT']);
  process.send?.('listening');
}

function describeApi(app: NestExpressApplication): void {
  const config = new DocumentBuilder().setTitle('Insidia').setDescription('Projects, revisions and simulations').setVersion('1').build();
  const document = SwaggerModule.createDocument(app, config);
  document.components = {
    ...document.components,
    schemas: { ...document.components?.schemas, ...(schemaParts('#/components/schemas/') as object) },
  };
  SwaggerModule.setup('api/docs', app, document, { jsonDocumentUrl: 'api/openapi.json' });
}

main().catch((error: unknown) => {
  console.error(`insidia: the server could not start: ${error instanceof Error ? error.message : String(error)}`);
  process.exit(1);
});
