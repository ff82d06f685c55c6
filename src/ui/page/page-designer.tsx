'use client';
import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { Copy, Eye, EyeOff, GripVertical, Plus, Trash2 } from 'lucide-react';
import type { Route } from 'next';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { DropdownMenu } from 'radix-ui';
import { memo, useCallback, useState } from 'react';
import type { OfferField } from '@/core/offer/offer';
import {
  BLOCK_KINDS,
  type Block,
  type BlockKind,
  FONT_PAIRS,
  type HostedPage,
  MOST_BLOCKS,
  moved,
  newBlock,
  PAGE_CORNERS,
  PAGE_SIZES,
  pageWarnings,
  type Theme,
} from '@/core/page/page';
import { Button } from '../kit/button';
import { Field } from '../kit/field';
import { SelectField } from '../kit/select';
import { send, troubleOf } from '../kit/send';
import { SortableList } from '../kit/sortable-list';
import { say, sayTrouble } from '../kit/toasts';
import { Collapsible } from '../offer/collapsible';
import { OfferProof } from '../offer/offer-proof';
import { BLOCK_NAMES, BlockEditor, Pictures } from './block-editor';
import { usePage } from './use-page';

const plain = (html: string): string =>
  html
    .replace(/<[^>]*>/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();

/** What a folded block shows of itself. */
const inShort = (block: Block): string =>
  plain(block.text).slice(0, 80) ||
  block.questions
    .map(({ ask }) => ask)
    .join(', ')
    .slice(0, 80) ||
  (block.pictures.length > 0
    ? block.pictures
        .map(({ alt }) => alt || 'a picture')
        .join(', ')
        .slice(0, 80)
    : '');

type RowProps = {
  block: Block;
  open: boolean;
  fields: readonly OfferField[];
  currency: string;
  onOpen: (id: string) => void;
  onChange: (id: string, part: Partial<Block>) => void;
  onCopy: (id: string) => void;
  onRemove: (id: string) => void;
};

/** One block: its handle, what it holds, and what can be done with it. Drawn anew only when it is another. */
const BlockRow = memo(function BlockRow({
  block,
  open,
  fields,
  currency,
  onOpen,
  onChange,
  onCopy,
  onRemove,
}: RowProps) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: block.id,
  });
  const name = BLOCK_NAMES[block.kind];
  const tool = 'grid size-8 flex-none place-items-center text-soft hover:text-ink';
  const look = { size: 15, strokeWidth: 1.5, 'aria-hidden': true } as const;
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`border-b border-rule bg-sheet ${isDragging ? 'relative z-10 shadow-lift' : ''} ${block.hidden ? 'opacity-60' : ''}`}
      data-block={block.kind}
    >
      <div className="flex items-center gap-1">
        <button
          ref={setActivatorNodeRef}
          type="button"
          className={`${tool} cursor-grab touch-none`}
          aria-label={`Move ${name}: space, then the arrow keys`}
          {...attributes}
          {...listeners}
          // What is moved is folded first: a tall block hardly finds its place among low ones.
          onFocus={() => open && onOpen(block.id)}
        >
          <GripVertical {...look} />
        </button>
        <button
          type="button"
          className="flex min-h-11 min-w-0 flex-1 items-baseline gap-3 py-2 text-left"
          aria-expanded={open}
          onClick={() => onOpen(block.id)}
        >
          <span className="flex-none font-serif text-[16px]/6 font-medium">{name}</span>
          <span className="min-w-0 truncate text-soft">{inShort(block)}</span>
        </button>
        <button
          type="button"
          className={tool}
          aria-label={block.hidden ? `Show ${name}` : `Hide ${name}`}
          onClick={() => onChange(block.id, { hidden: !block.hidden })}
        >
          {block.hidden ? <EyeOff {...look} /> : <Eye {...look} />}
        </button>
        <button type="button" className={tool} aria-label={`Copy ${name}`} onClick={() => onCopy(block.id)}>
          <Copy {...look} />
        </button>
        <button type="button" className={tool} aria-label={`Remove ${name}`} onClick={() => onRemove(block.id)}>
          <Trash2 {...look} />
        </button>
      </div>
      {open ? (
        <div className="pb-4 pl-9 pr-2">
          <BlockEditor
            block={block}
            fields={fields}
            currency={currency}
            onChange={(part) => onChange(block.id, part)}
          />
        </div>
      ) : null}
    </li>
  );
});

const FONTS: Readonly<Record<Theme['fonts'], string>> = {
  workshop: 'Vollkorn with Encode Sans',
  plain: 'Encode Sans',
  book: 'Vollkorn',
};

/** How the page looks. */
function ThemeSection({ theme, onChange }: { theme: Theme; onChange: (part: Partial<Theme>) => void }) {
  const colour = (label: string, name: 'background' | 'text' | 'accent') => (
    <Field
      label={label}
      type="color"
      className="w-[92px]"
      value={theme[name]}
      onChange={(event) => onChange({ [name]: event.target.value })}
    />
  );
  return (
    <Collapsible name="Colours, type, cover" now={FONTS[theme.fonts]}>
      <div className="flex flex-wrap gap-3">
        {colour('Background', 'background')}
        {colour('Text', 'text')}
        {colour('Accent', 'accent')}
        <SelectField
          label="Type"
          className="w-[210px]"
          value={theme.fonts}
          onChange={(event) => onChange({ fonts: event.target.value as Theme['fonts'] })}
        >
          {FONT_PAIRS.map((one) => (
            <option key={one} value={one}>
              {FONTS[one]}
            </option>
          ))}
        </SelectField>
        <SelectField
          label="Size"
          className="w-[110px]"
          value={theme.size}
          onChange={(event) => onChange({ size: event.target.value as Theme['size'] })}
        >
          {PAGE_SIZES.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </SelectField>
        <SelectField
          label="Corners"
          className="w-[110px]"
          value={theme.corners}
          onChange={(event) => onChange({ corners: event.target.value as Theme['corners'] })}
        >
          {PAGE_CORNERS.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </SelectField>
      </div>
      <div>
        <p className="label mb-1">Cover picture</p>
        <Pictures
          pictures={theme.cover ? [theme.cover] : []}
          most={1}
          onChange={(pictures) => onChange({ cover: pictures[0] ?? null })}
        />
      </div>
    </Collapsible>
  );
}

/** A hosted page while it is designed: its blocks at the left, what visitors will see at the right. */
export function PageDesigner({
  id,
  first,
  fields,
  currency,
  versions,
  published,
}: {
  id: string;
  first: HostedPage;
  fields: readonly OfferField[];
  currency: string;
  /** Published versions, latest first; `when` in words. */
  versions: readonly { readonly version: number; readonly when: string; readonly byName: string }[];
  published: number | null;
}) {
  const router = useRouter();
  const { page, setPage, state, shown, keep, blocks, change, copy, remove } = usePage(id, first);
  const [open, setOpen] = useState('');
  const [busy, setBusy] = useState(false);
  const toggle = useCallback((blockId: string) => setOpen((now) => (now === blockId ? '' : blockId)), []);

  function add(kind: BlockKind) {
    const block = newBlock(crypto.randomUUID(), kind);
    blocks((before) => [...before, block]);
    setOpen(block.id);
  }

  async function publish() {
    setBusy(true);
    const kept = state === 'kept' || (await keep(page));
    const answer = kept ? await send<{ version: number }>('POST', `/api/offers/${id}/publish`, {}) : null;
    setBusy(false);
    if (!answer) return;
    if (!answer.ok) return sayTrouble(troubleOf(answer));
    say(`Version ${answer.value.version} is what visitors see now`);
    router.refresh();
  }

  async function restore(version: number) {
    const answer = await send('POST', `/api/offers/${id}/restore`, { version });
    if (!answer.ok) return sayTrouble(answer.words);
    location.reload();
  }

  const warnings = pageWarnings(page);
  return (
    <div className="mx-auto max-w-[1440px] px-4 pb-24 sm:px-7">
      <div className="flex h-[58px] items-center gap-4">
        <Link className="link" href={`/ask/pages/${id}` as Route}>
          Hosted pages
        </Link>
        <span aria-live="polite" className="small flex-1 text-soft" data-keeping={state}>
          {state === 'kept' ? 'Saved; visitors see what was published' : 'Saving …'}
        </span>
        <Link className="btn" href={`/ask/offer/${id}` as Route}>
          The offer
        </Link>
        <Button look="go" busy={busy} onClick={() => void publish()} busyWords="One moment">
          Publish the page
        </Button>
      </div>
      <div className="grid gap-7 lg:grid-cols-[minmax(0,690fr)_minmax(0,506fr)]">
        <div className="sheet px-6 py-5 sm:px-8">
          <div className="flex items-baseline gap-4">
            <h1 className="title-screen flex-1">The page</h1>
            <DropdownMenu.Root>
              <DropdownMenu.Trigger className="btn" disabled={page.blocks.length >= MOST_BLOCKS}>
                <Plus size={15} strokeWidth={1.6} aria-hidden="true" /> Add a block
              </DropdownMenu.Trigger>
              <DropdownMenu.Portal>
                <DropdownMenu.Content className="menu" align="end" sideOffset={4}>
                  {BLOCK_KINDS.map((kind) => (
                    <DropdownMenu.Item key={kind} className="menu-item" onSelect={() => add(kind)}>
                      {BLOCK_NAMES[kind]}
                    </DropdownMenu.Item>
                  ))}
                </DropdownMenu.Content>
              </DropdownMenu.Portal>
            </DropdownMenu.Root>
          </div>
          {warnings.map((warning) => (
            <p key={warning} className="mt-2 bg-ochre-tint px-3.5 py-2" role="status">
              {warning}
            </p>
          ))}
          <SortableList
            id="blocks"
            label="Blocks"
            className="mt-3 border-t border-ink"
            ids={page.blocks.map((one) => one.id)}
            onMove={(from, to) =>
              blocks((before) =>
                moved(
                  before,
                  from,
                  before.findIndex((one) => one.id === to),
                ),
              )
            }
          >
            {page.blocks.map((block) => (
              <BlockRow
                key={block.id}
                block={block}
                open={open === block.id}
                fields={fields}
                currency={currency}
                onOpen={toggle}
                onChange={change}
                onCopy={copy}
                onRemove={remove}
              />
            ))}
          </SortableList>
          <div className="mt-5 border-t border-ink">
            <ThemeSection
              theme={page.theme}
              onChange={(part) => setPage((before) => ({ ...before, theme: { ...before.theme, ...part } }))}
            />
            <Collapsible name="Published versions" now={published ? `version ${published} is shown` : 'none yet'}>
              <ul>
                {versions.map((one) => (
                  <li key={one.version} className="flex items-baseline gap-4 border-b border-rule py-1.5">
                    <span className="flex-1">
                      Version {one.version}, {one.when}, by {one.byName}
                    </span>
                    <Button look="small-link" onClick={() => void restore(one.version)}>
                      Restore version {one.version}
                    </Button>
                  </li>
                ))}
              </ul>
            </Collapsible>
          </div>
        </div>
        <OfferProof
          src={`/proof/hosted/${id}`}
          mail={`/proof/offer/${id}/mail`}
          stamp={shown}
          note="As it is edited; visitors see what was published."
        />
      </div>
    </div>
  );
}
