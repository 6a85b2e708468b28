import { Body, Controller, Get, Global, HttpCode, Inject, Module, Param, Post, Query } from '@nestjs/common';
import { ApiTags } from '@nestjs/swagger';
import {
  beforeEntrySchema,
  editReplySchema,
  editSchema,
  facetSchema,
  idSchema,
  logEntrySchema,
  type BeforeEntry,
  type Edit,
  type EditReply,
  type LogEntry,
} from '@eskovan/core/document';
import { z } from 'zod';
import { Documented } from '../common/documented.ts';
import { ProblemException } from '../common/problem.ts';
import { FileModule } from '../file/file.module.ts';
import { EditLog } from './edit-log.ts';
import { EditService } from './edit.service.ts';

function parseJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/** A value of a query that is JSON. @param fault what is said of any other */
const jsonOf = <T>(schema: z.ZodType<T>, fault: string) =>
  z
    .string()
    .max(2000)
    .transform((text, context): T => {
      const parsed = schema.safeParse(parseJson(text));
      if (parsed.success) return parsed.data;
      context.issues.push({ code: 'custom', message: fault, input: text });
      return z.NEVER;
    });

const historyQuerySchema = z.strictObject({
  /** The row. */
  row: idSchema,
  /** One facet of it. */
  facet: jsonOf(facetSchema, 'is no facet').optional(),
  most: z.coerce.number().int().min(1).max(100).default(20),
});

const beforeQuerySchema = z.strictObject({
  row: idSchema,
  facets: jsonOf(z.array(facetSchema).min(1).max(20), 'is no list of facets'),
  most: z.coerce.number().int().min(1).max(100).default(30),
});

@ApiTags('edit')
@Controller('api/projects/:projectId/edits')
class EditController {
  constructor(
    @Inject(EditService) private readonly edits: EditService,
    @Inject(EditLog) private readonly log: EditLog,
  ) {}

  @Post()
  @HttpCode(200)
  @Documented({
    summary: 'Applies an edit as a whole, once; harmless to repeat',
    body: editSchema,
    reply: editReplySchema,
    problems: [409, 410, 422],
  })
  apply(
    @Param('projectId', { schema: idSchema }) projectId: string,
    @Body({ schema: editSchema }) edit: Edit,
  ): Promise<EditReply> {
    if (edit.projectId !== projectId)
      throw new ProblemException(422, {
        code: 'invalid',
        message: 'projectId: the edit belongs to another project than its address.',
        field: 'projectId',
      });
    return this.edits.apply(edit);
  }

  @Get()
  @Documented({ summary: 'What was done to a row, newest first', reply: z.array(logEntrySchema) })
  history(
    @Param('projectId', { schema: idSchema }) projectId: string,
    @Query({ schema: historyQuerySchema }) { row, facet, most }: z.infer<typeof historyQuerySchema>,
  ): Promise<LogEntry[]> {
    return this.log.ofRow(projectId, row, facet ?? null, most);
  }

  @Get('before')
  @Documented({
    summary: 'What facets of a row were before each edit of them by people, newest first',
    reply: z.array(beforeEntrySchema),
  })
  before(
    @Param('projectId', { schema: idSchema }) projectId: string,
    @Query({ schema: beforeQuerySchema }) { row, facets, most }: z.infer<typeof beforeQuerySchema>,
  ): Promise<BeforeEntry[]> {
    return this.log.before(projectId, row, facets, most);
  }
}

@Global()
@Module({
  imports: [FileModule],
  controllers: [EditController],
  providers: [EditService, EditLog],
  exports: [EditService, EditLog],
})
export class EditModule {}
