import type { Pose, Row } from '@eskovan/core/document';
import { roomOfEye } from '@eskovan/core/survey';
import { ArrowRightLeft, LayoutGrid, Lightbulb, Plus } from 'lucide-react';
import { memo } from 'react';
import { fileUrl } from '../../data/api.ts';
import { workbench } from '../../desk/workbench.ts';
import { Button } from '../../kit/index.ts';
import type { SiteData } from '../../site/use-site.ts';
import { lensText } from '../shared/lens-text.ts';
import { RowShelf } from '../shared/row-shelf.tsx';
import { STATUS } from './about-view-card.tsx';
import { RecentRow } from './recent-row.tsx';
import { VIEW_GROUPS } from './view-body.ts';

/** What views are gathered for, in a dialog of its own. */
export type Gathering = 'sheet' | 'carry' | 'suggest';

interface ViewsShelfProps {
  views: readonly Row<'view'>[];
  selectedId: string | null;
  site: SiteData | null;
  onKeep: () => void;
  onGather: (what: Gathering) => void;
}

/** The list of views, and what can be done with all of them. Looking about draws nothing of it again. */
export const ViewsShelf = memo(function ViewsShelf({ views, selectedId, site, onKeep, onGather }: ViewsShelfProps) {
  const roomOf = ({ position }: Pose) => (site && roomOfEye(position, site.survey.storeys)?.name) ?? '';
  return (
    <RowShelf
      kind="view"
      title="Views"
      rows={views}
      selectedId={selectedId}
      onSelect={workbench.selectView}
      mark={(view, i) => <Thumbnail number={i + 1} sha256={view.body.thumbnail?.sha256 ?? null} />}
      note={(view) =>
        [
          lensText(view.body.lens),
          STATUS[view.body.status ?? 'draft'].toLowerCase(),
          ...(view.body.locked ? ['locked'] : []),
        ].join(' · ')
      }
      groups={VIEW_GROUPS}
      words={({ body }) =>
        [body.group, ...(body.tags ?? []), roomOf(body.pose), STATUS[body.status ?? 'draft']].join(' ')
      }
      empty="No views yet. Look around in the picture and keep what you like, or let some be suggested."
      footer={
        <div className="grid min-w-0 gap-1.5">
          <RecentRow views={views} />
          <div className="grid grid-cols-2 gap-1.5">
            <Button tone="primary" icon={<Plus size={14} />} className="justify-center" onClick={onKeep}>
              Keep view
            </Button>
            <Button icon={<Lightbulb size={14} />} className="justify-center" onClick={() => onGather('suggest')}>
              Suggest
            </Button>
            <Button
              icon={<LayoutGrid size={14} />}
              className="justify-center"
              disabled={views.length === 0}
              aria-label="Contact sheet"
              onClick={() => onGather('sheet')}
            >
              Sheet
            </Button>
            <Button icon={<ArrowRightLeft size={14} />} className="justify-center" onClick={() => onGather('carry')}>
              Out and in
            </Button>
          </div>
        </div>
      }
    />
  );
});

function Thumbnail({ number, sha256 }: { number: number; sha256: string | null }) {
  return (
    <span className="relative h-[46px] w-[82px] shrink-0 overflow-hidden rounded-md bg-surround">
      {sha256 && <img src={fileUrl(sha256)} alt="" className="h-full w-full object-contain" />}
      <span className="absolute top-0.5 left-0.5 rounded bg-surround/85 px-1 text-xs font-semibold text-surround-ink">
        {number}
      </span>
    </span>
  );
}
