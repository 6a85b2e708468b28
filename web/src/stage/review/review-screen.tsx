import { MOST_TAKES_OF_LINK, MOST_VIEWS_OF_LINK, type Row } from '@eskovan/core/document';
import { Copy, ExternalLink, Link as LinkIcon, Trash2 } from 'lucide-react';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { z } from 'zod';
import { undoWithWords } from '../../desk/undo-words.ts';
import { fileUrl, request } from '../../data/api.ts';
import { makeRow } from '../../data/edit-row.ts';
import { isOnServer } from '../../data/edits.ts';
import { dispatch } from '../../data/undo.ts';
import { orderAfter } from '../../data/order.ts';
import { liveRows, removing } from '../../data/changes.ts';
import { useProject } from '../../data/use-project.ts';
import { Button, Card, cx, Empty, Line, Select } from '../../kit/index.ts';
import { takeLabel } from '../shared/take-label.ts';
import { newToken } from './new-token.ts';

const ENDS = [
  { value: 'never', label: 'Does not end', days: null },
  { value: 'week', label: 'In a week', days: 7 },
  { value: 'month', label: 'In a month', days: 30 },
] as const;

/** Where clients' pages are served. */
function useReviewAddress(): string | null {
  const { data } = useQuery({
    queryKey: ['settings'],
    staleTime: Infinity,
    queryFn: ({ signal }) =>
      request('GET', '/api/settings', { schema: z.object({ reviewAddress: z.string() }), signal }),
  });
  return data?.reviewAddress ?? null;
}

/** Choose what the client sees, and send a link. */
export function ReviewScreen() {
  const document = useProject();
  const links = liveRows(document.link);
  return (
    <div className="mx-auto grid h-full max-w-300 grid-cols-[minmax(0,1fr)_minmax(300px,380px)] gap-5 overflow-y-auto p-5">
      <NewLink />
      <section aria-label="Links" className="grid grid-cols-[minmax(0,1fr)] content-start gap-2.5">
        <h2 className="font-semibold text-ink-soft">Links sent</h2>
        {links.length === 0 && (
          <p className="text-ink-soft">
            None yet. A link shows its client a plain page with what you chose, and nothing else of the studio.
          </p>
        )}
        {links.map((link) => (
          <LinkCard key={link.id} link={link} />
        ))}
      </section>
    </div>
  );
}

function LinkCard({ link }: { link: Row<'link'> }) {
  const base = useReviewAddress();
  // A page that the server has not got yet cannot be sent.
  const address = base !== null && isOnServer(link) ? `${base}/review/${link.body.token}` : null;
  const ended = link.body.expires !== null && Date.parse(link.body.expires) < Date.now();
  const some = (n: number, what: string) => `${n} ${what}${n === 1 ? '' : 's'}`;
  return (
    <Card
      title={link.name}
      note={ended ? 'ended' : link.body.expires ? `ends ${new Date(link.body.expires).toLocaleDateString()}` : 'open'}
    >
      <p className="mb-1.5 text-ink-soft">
        {some(link.body.takeIds.length, 'take')}, {some(link.body.viewIds.length, 'view')}
      </p>
      <p
        className="mb-2 truncate rounded-md border border-rule bg-desk px-2 py-1 font-mono text-sm"
        data-testid="link-address"
      >
        {address ?? 'The link is being saved…'}
      </p>
      <div className="flex flex-wrap gap-1.5">
        <Button
          small
          icon={<Copy size={13} />}
          disabled={address === null}
          onClick={() =>
            void navigator.clipboard.writeText(address ?? '').then(
              () => toast('Link copied'),
              () => toast.error('The browser did not allow copying; select the address and copy it by hand.'),
            )
          }
        >
          Copy link
        </Button>
        <a
          href={address ?? undefined}
          aria-disabled={address === null}
          target="_blank"
          rel="noreferrer"
          className="inline-flex h-7 items-center gap-1.5 rounded-lg border border-rule bg-raised px-2 text-sm font-medium hover:border-ink-faint"
        >
          <ExternalLink size={13} aria-hidden /> Open
        </a>
        <Button
          small
          tone="danger"
          className="ml-auto"
          icon={<Trash2 size={13} />}
          onClick={() => {
            dispatch(link.projectId, `End ${link.name}`, [removing('link', link.id)]);
            toast(`Ended ${link.name}; its page no longer opens`, {
              action: { label: 'Undo', onClick: () => undoWithWords(link.projectId) },
            });
          }}
        >
          End link
        </Button>
      </div>
    </Card>
  );
}

function NewLink() {
  const document = useProject();
  const { project } = document;
  const takes = [...liveRows(document.take)].sort((a, b) => b.body.number - a.body.number);
  const views = liveRows(document.view);
  const [takeIds, setTakeIds] = useState<string[] | null>(null);
  const [viewIds, setViewIds] = useState<string[] | null>(null);
  const [ends, setEnds] = useState<(typeof ENDS)[number]['value']>('month');
  // Most often the newest take and all views are what goes out.
  const chosenTakes = takeIds ?? takes.slice(0, 1).map((take) => take.id);
  const chosenViews = viewIds ?? views.map((view) => view.id);
  if (takes.length === 0 && views.length === 0)
    return (
      <Empty title="Nothing to show yet">Keep views and render a take; then send them to the client from here.</Empty>
    );
  const toggle = (list: readonly string[], id: string) =>
    list.includes(id) ? list.filter((other) => other !== id) : [...list, id];
  const tooMany =
    chosenViews.length > MOST_VIEWS_OF_LINK
      ? `A link holds ${MOST_VIEWS_OF_LINK} views at most; ${chosenViews.length} are chosen.`
      : chosenTakes.length > MOST_TAKES_OF_LINK
        ? `A link holds ${MOST_TAKES_OF_LINK} takes at most; ${chosenTakes.length} are chosen.`
        : null;
  const make = () => {
    const links = liveRows(document.link);
    const { days } = ENDS.find(({ value }) => value === ends)!;
    makeRow('link', project.id, 'New link', {
      name: `Link ${links.length + 1}, ${project.body.round}`,
      order: orderAfter(links),
      body: {
        token: newToken(),
        takeIds: chosenTakes,
        viewIds: chosenViews,
        expires: days === null ? null : new Date(Date.now() + days * 86_400_000).toISOString(),
      },
    });
  };
  return (
    <section aria-label="New link" className="grid content-start gap-4">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <h2 className="text-xl font-semibold">What the client sees</h2>
        <div className="flex items-center gap-3">
          <Line label="Ends">
            <Select label="When the link ends" value={ends} options={ENDS} onChange={setEnds} />
          </Line>
          <Button
            tone="primary"
            icon={<LinkIcon size={14} />}
            disabled={chosenTakes.length + chosenViews.length === 0 || tooMany !== null}
            onClick={make}
          >
            Make link
          </Button>
        </div>
      </div>
      {tooMany && (
        <p role="alert" className="text-madder">
          {tooMany} Take some out, or make two links.
        </p>
      )}
      {takes.length > 0 && (
        <Choices
          title="Takes"
          items={takes.map((take) => ({
            id: take.id,
            name: take.name,
            note: takeLabel(take),
            picture: take.body.poster?.sha256 ?? null,
          }))}
          chosen={chosenTakes}
          onToggle={(id) => setTakeIds(toggle(chosenTakes, id))}
        />
      )}
      {views.length > 0 && (
        <Choices
          title="Views"
          items={views.map((view, i) => ({
            id: view.id,
            name: view.name,
            note: String(i + 1),
            picture: view.body.thumbnail?.sha256 ?? null,
          }))}
          chosen={chosenViews}
          onToggle={(id) => setViewIds(toggle(chosenViews, id))}
        />
      )}
    </section>
  );
}

interface ChoicesProps {
  title: string;
  items: readonly { id: string; name: string; note: string; picture: string | null }[];
  chosen: readonly string[];
  onToggle: (id: string) => void;
}

function Choices({ title, items, chosen, onToggle }: ChoicesProps) {
  return (
    <fieldset>
      <legend className="mb-2 font-semibold text-ink-soft">{title}</legend>
      <div className="grid grid-cols-[repeat(auto-fill,minmax(170px,1fr))] gap-3">
        {items.map((item) => (
          <label
            key={item.id}
            className={cx(
              'group relative block cursor-pointer overflow-hidden rounded-[10px] border bg-paper has-focus-visible:outline-2 has-focus-visible:outline-lagoon',
              chosen.includes(item.id) ? 'border-lagoon ring-1 ring-lagoon' : 'border-rule',
            )}
          >
            <span
              className={cx(
                'block aspect-video bg-surround',
                !chosen.includes(item.id) && 'opacity-75 group-hover:opacity-100',
              )}
            >
              {item.picture && <img src={fileUrl(item.picture)} alt="" className="h-full w-full object-cover" />}
            </span>
            <span className="flex items-center gap-2 px-2.5 py-2">
              <input
                type="checkbox"
                className="accent-lagoon"
                checked={chosen.includes(item.id)}
                onChange={() => onToggle(item.id)}
              />
              <span className="truncate font-medium">{item.name}</span>
              <span className="ml-auto shrink-0 text-sm text-ink-faint">{item.note}</span>
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}
