import { Global, Module } from '@nestjs/common';
import { FileModule } from '../file/file.module.ts';
import { RowService } from './row.service.ts';

@Global()
@Module({ imports: [FileModule], providers: [RowService], exports: [RowService] })
export class RowModule {}
