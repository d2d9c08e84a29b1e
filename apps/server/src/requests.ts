/** Bodies of requests: checked against their classes; whatever is wrong is named with its value. */
import { ValidationPipe } from '@nestjs/common';
import type { ValidationError } from 'class-validator';
import { badRequest, echo } from './problem';

/** Breaches that one refusal names. */
const MOST_NAMED = 5;

export const requests = new ValidationPipe({
  transform: true,
  whitelist: true,
  forbidNonWhitelisted: true,
  exceptionFactory: (errors) => {
    const named = errors.flatMap((error) => sentences(error, ''));
    const more = named.length > MOST_NAMED ? `; and ${named.length - MOST_NAMED} more` : '';
    return badRequest((named.slice(0, MOST_NAMED).join('; ') || 'the body must be an object') + more);
  },
});

function sentences({ property, constraints = {}, children = [], value }: ValidationError, at: string): string[] {
  const here = property === undefined ? at : `${at}${property}`;
  const own = Object.entries(constraints).map(([rule, text]) =>
    rule === 'unknownValue' || rule === 'nestedValidation'
      ? `${here} must be an object: it is ${echo(value)}`
      : `${at}${text}: it is ${echo(value)}`,
  );
  return [...own, ...children.flatMap((child) => sentences(child, `${here}/`))];
}
