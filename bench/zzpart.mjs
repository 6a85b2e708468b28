import { withStudio } from '../scripts/lib/studio.mjs';
import { build } from '../scripts/lib/build.mjs';
import { benchInteraction } from './interaction.mjs';
import { benchViews } from './views.mjs';
await build();
await withStudio({ pictures: false }, async ({ address }) => {
  for (let i=0;i<2;i++) for (const r of await benchInteraction(address)) console.log(r.what,'|', r.ours, r.holds);
  if (process.argv[2]==='views') for (const r of await benchViews(address)) console.log(r.what,'|', r.ours, r.holds);
});
