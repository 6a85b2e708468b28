import { Global, Module, type DynamicModule } from '@nestjs/common';
import { APP_FILTER, APP_GUARD, APP_INTERCEPTOR, APP_PIPE } from '@nestjs/core';
import { ActionModule } from './action/action.module.ts';
import { LoggingInterceptor } from './common/logging.interceptor.ts';
import { ProblemFilter } from './common/problem.filter.ts';
import { StudioGuard } from './common/studio.guard.ts';
import { validationPipe } from './common/validation.ts';
import { CONFIG, type Config } from './config.ts';
import { DatabaseModule } from './database/database.module.ts';
import { EditModule } from './edit/edit.module.ts';
import { FileModule } from './file/file.module.ts';
import { HealthModule } from './health/health.module.ts';
import { LightModule } from './light/light.module.ts';
import { LinkModule } from './link/link.module.ts';
import { LiveModule } from './live/live.module.ts';
import { ModelModule } from './model/model.module.ts';
import { MoveModule } from './move/move.module.ts';
import { ProjectModule } from './project/project.module.ts';
import { ReelModule } from './reel/reel.module.ts';
import { ReviewModule } from './review/review.module.ts';
import { RowModule } from './row/row.module.ts';
import { SiteModule } from './site/site.module.ts';
import { TakeModule } from './take/take.module.ts';
import { ViewModule } from './view/view.module.ts';

@Global()
@Module({})
class ConfigModule {
  static with(config: Config): DynamicModule {
    return { module: ConfigModule, providers: [{ provide: CONFIG, useValue: config }], exports: [CONFIG] };
  }
}

@Module({})
export class AppModule {
  static with(config: Config): DynamicModule {
    return {
      module: AppModule,
      imports: [
        ConfigModule.with(config),
        DatabaseModule,
        EditModule,
        LiveModule,
        FileModule,
        RowModule,
        ProjectModule,
        ModelModule,
        ActionModule,
        LightModule,
        MoveModule,
        ViewModule,
        ReelModule,
        TakeModule,
        LinkModule,
        SiteModule,
        ReviewModule,
        HealthModule,
      ],
      providers: [
        { provide: APP_GUARD, useClass: StudioGuard },
        { provide: APP_FILTER, useClass: ProblemFilter },
        { provide: APP_INTERCEPTOR, useClass: LoggingInterceptor },
        { provide: APP_PIPE, useValue: validationPipe },
      ],
    };
  }
}
