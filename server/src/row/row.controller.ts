import { Body, Delete, Get, Inject, Param, Patch, Post, Put, Query, type Type } from '@nestjs/common';
import {
  changeRequestSchema,
  createRequestSchema,
  idSchema,
  revisionRequestSchema,
  rowSchema,
  type ChildKind,
  type Kind,
  type Row,
} from '@eskovan/core/document';
import { z } from 'zod';
import { Documented } from '../common/documented.ts';
import { RowService, type NewRow, type RowChange } from './row.service.ts';

const revisionQuerySchema = z.strictObject({ revision: z.coerce.number().int().min(1) });

export interface RowRoutes {
  readonly rows: RowService;
}

/**
 * The routes of one row that all kinds share. A project belongs to itself: its own name is its project's.
 */
export function rowRoutes<K extends Kind>(kind: K): Type<RowRoutes> {
  const reply = rowSchema(kind);
  const owner = kind === 'project' ? 'id' : 'projectId';

  class KindRoutes implements RowRoutes {
    constructor(@Inject(RowService) readonly rows: RowService) {}

    @Get(':id')
    @Documented({ summary: `One ${kind}`, reply, problems: [404] })
    get(
      @Param(owner, { schema: idSchema }) projectId: string,
      @Param('id', { schema: idSchema }) id: string,
    ): Promise<Row<K>> {
      return this.rows.get(kind, projectId, id);
    }

    @Put(':id')
    @Documented({
      summary: `Makes a ${kind}; harmless to repeat`,
      body: createRequestSchema(kind),
      reply,
      problems: [404, 409, 422],
    })
    create(
      @Param(owner, { schema: idSchema }) projectId: string,
      @Param('id', { schema: idSchema }) id: string,
      @Body({ schema: createRequestSchema(kind) }) wanted: Omit<NewRow<K>, 'id' | 'projectId'>,
    ): Promise<Row<K>> {
      return this.rows.create(kind, { ...wanted, id, projectId } as NewRow<K>);
    }

    @Patch(':id')
    @Documented({
      summary: `Changes a ${kind} that is still at the named revision`,
      body: changeRequestSchema(kind),
      reply,
      problems: [404, 409, 422],
    })
    change(
      @Param(owner, { schema: idSchema }) projectId: string,
      @Param('id', { schema: idSchema }) id: string,
      @Body({ schema: changeRequestSchema(kind) }) change: RowChange<K>,
    ): Promise<Row<K>> {
      return this.rows.change(kind, projectId, id, change);
    }

    @Delete(':id')
    @Documented({ summary: `Deletes a ${kind}; it can be restored`, reply, problems: [404, 409] })
    remove(
      @Param(owner, { schema: idSchema }) projectId: string,
      @Param('id', { schema: idSchema }) id: string,
      @Query({ schema: revisionQuerySchema }) { revision }: { revision: number },
    ): Promise<Row<K>> {
      return this.rows.remove(kind, projectId, id, revision);
    }

    @Post(':id/restore')
    @Documented({ summary: `Brings a deleted ${kind} back`, body: revisionRequestSchema, reply, problems: [404, 409] })
    restore(
      @Param(owner, { schema: idSchema }) projectId: string,
      @Param('id', { schema: idSchema }) id: string,
      @Body({ schema: revisionRequestSchema }) { revision }: { revision: number },
    ): Promise<Row<K>> {
      return this.rows.restore(kind, projectId, id, revision);
    }
  }
  return KindRoutes;
}

/** All routes of a kind that projects have lists of. A kind's controller extends the class made here. */
export function rowController<K extends ChildKind>(kind: K): Type<RowRoutes> {
  class KindController extends rowRoutes(kind) {
    @Get()
    @Documented({ summary: `All ${kind}s of a project, in order`, reply: z.array(rowSchema(kind)) })
    list(@Param('projectId', { schema: idSchema }) projectId: string): Promise<Row<K>[]> {
      return this.rows.list(kind, projectId);
    }
  }
  return KindController;
}
