import { type ArgumentsHost, Catch, type ExceptionFilter, HttpException, Logger } from '@nestjs/common';
import { InvalidDocument, PatchError } from '@insidia/core';
import type { Response } from 'express';
import { type ProblemBody, ProblemError, badPatch, invalidDocument, notJson, tooLarge } from './problem';
import { settings } from './settings';

/** The one place where errors become answers. */
@Catch()
export class ProblemFilter implements ExceptionFilter {
  private readonly logger = new Logger('Problem');

  catch(error: unknown, host: ArgumentsHost): void {
    this.answer(error, host.switchToHttp().getResponse<Response>());
  }

  answer(error: unknown, response: Response): void {
    const body = this.bodyOf(error);
    if (body.status >= 500) this.logger.error(error instanceof Error ? error.stack : String(error));
    response.status(body.status).type('application/problem+json').send(JSON.stringify(body));
  }

  private bodyOf(error: unknown): ProblemBody {
    if (error instanceof ProblemError) return error.body;
    if (error instanceof InvalidDocument) return invalidDocument(error).body;
    if (error instanceof PatchError) return badPatch(error.message).body;
    const { type, message } = error as { type?: string; message?: string };
    if (type === 'entity.too.large') return tooLarge(settings().bodyLimit).body;
    if (type === 'entity.parse.failed') return notJson(message ?? '').body;
    if (error instanceof HttpException) {
      return { type: 'about:blank', title: error.message, status: error.getStatus(), detail: error.message };
    }
    return {
      type: 'about:blank',
      title: 'Something went wrong in the server',
      status: 500,
      detail: 'the request was not carried out; nothing was changed',
    };
  }
}
