import { applyDecorators } from '@nestjs/common';
import { ApiBody, ApiOperation, ApiResponse } from '@nestjs/swagger';
import { problemSchema } from '@eskovan/core/document';
import { z } from 'zod';

const jsonSchema = (schema: z.ZodType) =>
  z.toJSONSchema(schema, { target: 'openapi-3.0', io: 'input', unrepresentable: 'any' }) as Record<string, unknown>;

/** Puts a route into the API page, with the very schemas that check it. */
export function Documented(route: {
  summary: string;
  body?: z.ZodType;
  reply?: z.ZodType;
  /** There may be nothing to reply with. */
  nothing?: boolean;
  problems?: readonly number[];
}) {
  return applyDecorators(
    ApiOperation({ summary: route.summary }),
    ...(route.body ? [ApiBody({ schema: jsonSchema(route.body) })] : []),
    ApiResponse({ status: 200, ...(route.reply ? { schema: jsonSchema(route.reply) } : {}) }),
    ...(route.nothing ? [ApiResponse({ status: 204, description: 'There is nothing yet' })] : []),
    ...(route.problems ?? []).map((status) => ApiResponse({ status, schema: jsonSchema(problemSchema) })),
  );
}
