import type { Row } from '@eskovan/core/document';
import { Box, Eye, EyeOff } from 'lucide-react';
import { selection } from '../../desk/selection.ts';
import { workbench } from '../../desk/workbench.ts';
import { editBody } from '../../data/edit-row.ts';
import { cx } from '../../kit/index.ts';
import { useModels } from '../../site/use-site.ts';
import { RowShelf } from '../shared/row-shelf.tsx';
import { DropModel } from '../shared/drop-model.tsx';

/** The models of the project. */
export function ModelsShelf({ selectedId, onFiles }: { selectedId: string; onFiles: (files: File[]) => void }) {
  const models = useModels();
  return (
    <RowShelf
      kind="model"
      title="Models"
      rows={models}
      selectedId={selectedId}
      onSelect={(id, how, order) => {
        selection.chooseRow('model', id, how, order);
        workbench.set({ part: null, scout: null });
      }}
      mark={(row) => (
        <Box size={16} aria-hidden className={cx('shrink-0', row.body.hidden ? 'text-ink-faint' : 'text-lagoon')} />
      )}
      note={(row) => `${row.body.hidden ? 'hidden · ' : ''}${row.body.triangles.toLocaleString('en')} triangles`}
      menu={(row) => [
        {
          label: row.body.hidden ? 'Show' : 'Hide',
          icon: row.body.hidden ? <Eye size={13} /> : <EyeOff size={13} />,
          onSelect: () => setHidden(row, !row.body.hidden),
        },
      ]}
      empty="No model yet."
      footer={<DropModel compact onFiles={onFiles} />}
    />
  );
}

function setHidden(row: Row<'model'>, hidden: boolean): void {
  editBody('model', row, `${hidden ? 'Hide' : 'Show'} ${row.name}`, (body) => ({ ...body, hidden }));
}
