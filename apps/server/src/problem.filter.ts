import { type ArgumentsHost, Catch, type ExceptionFilter, HttpException, Logger } from '@nestjs/common';
import { InvalidDocument } from '@insidia/core';
import type { Request, Response } from 'express';
import { databaseProblem } from './database/trouble';
import { type ProblemBody, ProblemError, invalidDocument, notJson, tooLarge, unreadable } from './problem';
import { settings } from './settings';

/** The one place where errors become answers. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  private readonly logger = new Logger('Problem');

  catch(error: unknown, host: ArgumentsHost): void {
    const http = host.switchToHttp();
    this.answer(error, http.getRequest<Request>(), http.getResponse<Response>());
  }

  answer(error: unknown, request: Request, response: Response): void {
    // Whoever asked has gone, or has been told already.
    if (response.headersSent || response.destroyed) return void response.destroy();
    const body = this.bodyOf(error, !['GET', 'HEAD', 'OPTIONS'].includes(request.method));
    if (body.status >= 500) this.logger.error(error instanceof Error ? error.stack : String(error));
    response.status(body.status).type('application/problem+json').send(JSON.stringify(body));
  }

  private bodyOf(error: unknown, changing: boolean): ProblemBody {
    if (error instanceof ProblemError) return error.body;
    if (error instanceof InvalidDocument) return invalidDocument(error).body;
    const { type, message, status, statusCode } = error as { type?: string; message?: string; status?: number; statusCode?: number };
    if (type === 'entity.too.large') return tooLarge(settings().bodyLimit).body;
    if (type === 'entity.parse.failed') return notJson(message ?? '').body;
    if (error instanceof HttpException) {
      return { type: 'about:blank', title: error.message, status: error.getStatus(), detail: error.message };
    }
    const own = databaseProblem(error, changing);
    if (own) return own.body;
    // What reads requests says by itself whose mistake it was: a charset, an encoding, an address.
    const said = status ?? statusCode ?? 500;
    if (said >= 400 && said < 500) return unreadable(said, (message ?? '').slice(0, 200)).body;
    return {
      type: 'about:blank',
      title: 'Something went wrong in the server',
      status: 500,
      detail: 'the request was not carried out; nothing was changed',
    };
  }
}
