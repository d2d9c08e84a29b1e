/** Bodies of requests: checked against their classes; whatever is wrong is named with its value. */
import { ValidationPipe } from '@nestjs/common';
import { badRequest } from './problem';

export const requests = new ValidationPipe({
  transform: true,
  whitelist: true,
  forbidNonWhitelisted: true,
  exceptionFactory: (errors) =>
    badRequest(
      errors
        .flatMap(({ property, constraints, value }) =>
          Object.values(constraints ?? { nested: `${property} is not valid` }).map((text) => `${text}: it is ${JSON.stringify(value)}`),
        )
        .join('; '),
    ),
});
