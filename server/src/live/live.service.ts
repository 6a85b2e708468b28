import { Injectable, type OnApplicationShutdown } from '@nestjs/common';
import type { Kind } from '@eskovan/core/document';
import { filter, Subject, type Observable } from 'rxjs';

/** A row that somebody has just changed. */
export interface RowChanged {
  projectId: string;
  kind: Kind;
  id: string;
  revision: number;
}

/** Tells other tabs which rows changed. */
@Injectable()
export class LiveService implements OnApplicationShutdown {
  private readonly changes = new Subject<RowChanged>();

  tell(change: RowChanged): void {
    this.changes.next(change);
  }

  of(projectId: string): Observable<RowChanged> {
    return this.changes.pipe(filter((change) => change.projectId === projectId));
  }

  /** Open event streams would keep the server from stopping. */
  onApplicationShutdown(): void {
    this.changes.complete();
  }
}
