import { Global, Module } from '@nestjs/common';
import { RowService } from './row.service.ts';

@Global()
@Module({ providers: [RowService], exports: [RowService] })
export class RowModule {}
