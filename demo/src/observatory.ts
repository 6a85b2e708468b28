import { roof } from './building/roof.ts';
import { shell } from './building/shell.ts';
import { entranceSteps, stair } from './building/stair.ts';
import { rooms } from './furniture/rooms.ts';
import type { Builder } from './kit/index.ts';

/** Builds the observatory: the house and its furniture. */
export function observatory(builder: Builder): void {
  shell(builder);
  roof(builder);
  stair(builder);
  entranceSteps(builder);
  rooms(builder);
}
