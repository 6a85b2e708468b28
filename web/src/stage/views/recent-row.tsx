import { sameValues, type Row } from '@eskovan/core/document';
import { Plus, X } from 'lucide-react';
import type { ReactNode } from 'react';
import { useProject } from '../../data/use-project.ts';
import { forget, useRecent, type Recent } from '../../desk/recent.ts';
import { useWorkbench } from '../../desk/workbench.ts';
import { lensText } from '../shared/lens-text.ts';
import { keepSeveral } from '../shared/keep-view.ts';
import { scoutAs } from './use-seen.ts';

/** Where one looked from and did not keep it: look again, keep, or forget. What has become a view is not here any more. */
export function RecentRow({ views }: { views: readonly Row<'view'>[] }) {
  const document = useProject();
  const { project } = document;
  const list = useRecent((state) => (state.projectId === project.id ? state.list : NONE));
  const seen = useWorkbench(({ scout }) => (scout && list.find(({ pose }) => sameValues(pose, scout))?.id) ?? null);
  const shown = list.filter(
    ({ id, pose, lens }) => id !== seen && !views.some(({ body }) => sameValues([body.pose, body.lens], [pose, lens])),
  );
  if (shown.length === 0) return null;
  const keep = ({ id, pose, lens, light, frame }: Recent) => {
    const name = `View ${views.length + 1}`;
    keepSeveral(document, `Keep ${name}`, [
      { name, body: { pose, lens, light, ...(frame && { frame }), thumbnail: null } },
    ]);
    forget(project.id, id);
  };
  return (
    <section aria-label="Recent" className="min-w-0">
      <h3 className="mb-1 text-sm text-ink-soft">Recent, not kept</h3>
      <ul className="flex gap-1.5 overflow-x-auto pb-1">
        {shown.map((one, i) => (
          <li key={one.id} className="w-[68px] shrink-0">
            <button
              type="button"
              aria-label={`Look from recent ${i + 1} again`}
              title={lensText(one.lens)}
              onClick={() => scoutAs(one)}
              className="block h-[38px] w-full overflow-hidden rounded-md bg-surround"
            >
              {one.picture && <img src={one.picture} alt="" className="h-full w-full object-cover" />}
            </button>
            <div className="flex justify-between">
              <Small label={`Keep recent ${i + 1}`} onPress={() => keep(one)}>
                <Plus size={13} />
              </Small>
              <Small label={`Forget recent ${i + 1}`} onPress={() => forget(project.id, one.id)}>
                <X size={13} />
              </Small>
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}
const NONE: readonly Recent[] = [];

function Small({ label, onPress, children }: { label: string; onPress: () => void; children: ReactNode }) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      onClick={onPress}
      className="flex h-6 w-8 items-center justify-center rounded-md text-ink-soft hover:bg-ink/5 hover:text-ink"
    >
      {children}
    </button>
  );
}
