import { aspectOf, frameOf, lengthText, lengthUnitOf, type Row } from '@eskovan/core/document';
import { roomOfEye, storeyOfEye } from '@eskovan/core/survey';
import { FileDown, Image } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { fileUrl } from '../../data/api.ts';
import { lensText } from '../shared/lens-text.ts';
import { PAPER_OPTIONS } from '../shared/papers.ts';
import { useProject } from '../../data/use-project.ts';
import { Button, Dialog, Line, saveFile, Select } from '../../kit/index.ts';
import type { SiteData } from '../../site/use-site.ts';
import { drawSheet, sheetPdf, sheetPng, type SheetOrder } from '../shared/sheet-drawing.ts';
import { useWhichViews, WhichViews } from './which-views.tsx';

interface ContactSheetDialogProps {
  /** All views in their order, and those that are chosen. */
  views: readonly Row<'view'>[];
  chosen: readonly Row<'view'>[];
  site: SiteData | null;
  onClose: () => void;
}

const GRIDS = ['1 × 1', '2 × 2', '2 × 3', '3 × 3', '4 × 4'].map((value) => ({ value, label: value }));

/** All or some of the views on paper: pictures, names, lenses and where the eye is. */
export function ContactSheetDialog({ views, chosen, site, onClose }: ContactSheetDialogProps) {
  const { project } = useProject();
  const [paper, setPaper] = useState(PAPER_OPTIONS[0]!.value);
  const [grid, setGrid] = useState('3 × 3');
  const which = useWhichViews(views, chosen);
  const [busy, setBusy] = useState(false);
  const { rows } = which;
  const missing = rows.filter(({ body }) => !body.thumbnail).length;
  const [columns, lines] = grid.split(' × ').map(Number) as [number, number];

  const order = (): SheetOrder => ({
    paper: PAPER_OPTIONS.find(({ value }) => value === paper)!.paper,
    columns,
    rows: lines,
    heading: `${project.name} · ${project.body.round}`,
    items: rows.map((row) => ({
      aspect: aspectOf({ frame: frameOf(row.body, project.body) }),
      url: row.body.thumbnail && fileUrl(row.body.thumbnail.sha256),
      title: `${views.indexOf(row) + 1}  ${row.name}`,
      note: noteOf(row, site),
    })),
  });
  const save = async (as: 'pdf' | 'png') => {
    setBusy(true);
    try {
      const wanted = order();
      const pages = await drawSheet(wanted);
      if (as === 'pdf') saveFile(await sheetPdf(pages, wanted), `${project.name}, views.pdf`);
      else
        for (const [i, page] of (await sheetPng(pages)).entries())
          saveFile(page, `${project.name}, views${pages.length > 1 ? ` ${i + 1}` : ''}.png`);
      onClose();
    } catch {
      toast.error('The contact sheet could not be made: there may be too little memory. Try fewer views, or A4.');
    } finally {
      setBusy(false);
    }
  };
  return (
    <Dialog open onClose={onClose} title="Contact sheet">
      <WhichViews {...which} />
      <Line label="Paper">
        <Select label="Paper" value={paper} options={PAPER_OPTIONS} onChange={setPaper} />
      </Line>
      <Line label="Pictures across and down">
        <Select label="Pictures across and down" value={grid} options={GRIDS} onChange={setGrid} />
      </Line>
      <p role="status" className="mt-2 text-ink-soft">
        {rows.length === 0
          ? 'There are no such views.'
          : `${rows.length} ${rows.length === 1 ? 'view' : 'views'} on ${Math.ceil(rows.length / (columns * lines))} ${rows.length > columns * lines ? 'pages' : 'page'}.`}
        {missing > 0 && ` ${missing} of them ${missing === 1 ? 'has' : 'have'} no picture yet.`}
      </p>
      <div className="mt-4 flex justify-end gap-2">
        <Button icon={<Image size={14} />} disabled={busy || rows.length === 0} onClick={() => void save('png')}>
          Save PNG
        </Button>
        <Button
          tone="primary"
          icon={<FileDown size={14} />}
          disabled={busy || rows.length === 0}
          onClick={() => void save('pdf')}
        >
          Save PDF
        </Button>
      </div>
    </Dialog>
  );
}

/** Lens, height of the eye over the floor, and the room, or the storey where it is in none. */
function noteOf({ body: { pose, lens } }: Row<'view'>, site: SiteData | null): string {
  const y = pose.position[1];
  const floor = site?.footing.floors.floorUnder(pose.position) ?? null;
  const storeys = site?.survey.storeys ?? [];
  const where = roomOfEye(pose.position, storeys) ?? storeys[storeyOfEye(y, storeys)];
  return [
    lensText(lens),
    ...(floor !== null ? [`eye ${lengthText(y - floor, lengthUnitOf(site?.survey.bounds ?? null))}`] : []),
    ...(where ? [where.name] : []),
  ].join(' · ');
}
