import { readModel } from '@eskovan/core/format';
import * as site from '@eskovan/core/site';
import { readFileSync } from 'node:fs';
for (const f of process.argv.slice(2)) {
  const m = await readModel(new Uint8Array(readFileSync(f)), f.split('/').pop());
  const g = site.guessOf(m, f.split('/').pop());
  console.log(f, JSON.stringify(m.declares), JSON.stringify(g.candidates, null, 1));
}
