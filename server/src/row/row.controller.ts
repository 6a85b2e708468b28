import { Get, Inject, Param, type Type } from '@nestjs/common';
import { idSchema, rowSchema, type ChildKind, type Row } from '@eskovan/core/document';
import { z } from 'zod';
import { Documented } from '../common/documented.ts';
import { RowService } from './row.service.ts';

interface RowRoutes {
  readonly rows: RowService;
}

/** The routes of a kind that projects have lists of: reading; all writing goes through edits. */
export function rowController<K extends ChildKind>(kind: K): Type<RowRoutes> {
  class KindController implements RowRoutes {
    constructor(@Inject(RowService) readonly rows: RowService) {}

    @Get()
    @Documented({ summary: `All ${kind}s of a project, in order`, reply: z.array(rowSchema(kind)) })
    list(@Param('projectId', { schema: idSchema }) projectId: string): Promise<Row<K>[]> {
      return this.rows.list(kind, projectId);
    }

    @Get(':id')
    @Documented({ summary: `One ${kind}`, reply: rowSchema(kind), problems: [404, 409] })
    get(
      @Param('projectId', { schema: idSchema }) projectId: string,
      @Param('id', { schema: idSchema }) id: string,
    ): Promise<Row<K>> {
      return this.rows.get(kind, projectId, id);
    }
  }
  return KindController;
}
