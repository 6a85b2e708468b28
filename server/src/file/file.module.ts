import { Controller, Get, HttpCode, Inject, Module, Param, Post, Req, Res } from '@nestjs/common';
import { ApiConsumes, ApiTags } from '@nestjs/swagger';
import { fileRefSchema, sha256Schema, type FileRef } from '@eskovan/core/document';
import type { Request, Response } from 'express';
import { Documented } from '../common/documented.ts';
import { ProblemException } from '../common/problem.ts';
import { CONFIG, type Config } from '../config.ts';
import { FileStore, tooLarge } from './file-store.ts';
import { FileSweep } from './file-sweep.ts';
import { FileUses } from './file-uses.ts';
import { sendFile } from './send-file.ts';

/** What is taken in, by the type its sender gives it. */
const TAKEN = new Set([
  'application/json',
  'application/octet-stream',
  'application/zip',
  'audio/mpeg',
  'audio/ogg',
  'audio/wav',
  'image/jpeg',
  'image/png',
  'image/tiff',
  'image/webp',
  'model/gltf-binary',
  'video/mp4',
  'video/quicktime',
  'video/webm',
]);

@ApiTags('file')
@Controller('api/files')
class FileController {
  constructor(
    @Inject(FileStore) private readonly files: FileStore,
    @Inject(FileUses) private readonly uses: FileUses,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  @Post()
  @HttpCode(200)
  @ApiConsumes(...TAKEN)
  @Documented({
    summary: 'Keeps the request body as a file, named by its content',
    reply: fileRefSchema,
    problems: [413, 415, 422],
  })
  async keep(@Req() request: Request): Promise<FileRef> {
    const mediaType = (request.headers['content-type'] ?? '').split(';')[0]!.trim().toLowerCase();
    if (!TAKEN.has(mediaType))
      throw new ProblemException(415, {
        code: 'wrong-type',
        message: `Files of the type “${mediaType || 'unknown'}” are not taken in. Taken are: ${[...TAKEN].join(', ')}.`,
      });
    if (Number(request.headers['content-length'] ?? 0) > this.config.largestFile)
      throw tooLarge(this.config.largestFile);
    return this.files.keep(request, mediaType);
  }

  @Get(':sha256')
  @Documented({ summary: 'A kept file; ranges are served', problems: [404] })
  async send(@Param('sha256', { schema: sha256Schema }) sha256: string, @Res() response: Response): Promise<void> {
    await sendFile(this.files, sha256, await this.uses.mediaTypeOf(sha256), response);
  }
}

@Module({ controllers: [FileController], providers: [FileStore, FileUses, FileSweep], exports: [FileStore, FileUses] })
export class FileModule {}
