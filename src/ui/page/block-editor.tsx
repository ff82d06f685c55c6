'use client';
import type { OfferField } from '@/core/offer/offer';
import type { Block, BlockKind, PagePicture } from '@/core/page/page';
import { FileDrop } from '../import/file-drop';
import { Button } from '../kit/button';
import { Field, TextField } from '../kit/field';
import { SelectField } from '../kit/select';
import { upload } from '../kit/send-file';
import { sayTrouble } from '../kit/toasts';
import { RichText } from './rich-text';

export const BLOCK_NAMES: Readonly<Record<BlockKind, string>> = {
  heading: 'Heading',
  text: 'Text',
  picture: 'Picture',
  gallery: 'Gallery',
  logo: 'Logo',
  offer: 'Offer',
  field: 'Question',
  goal: 'Goal',
  questions: 'Questions and answers',
  terms: 'Terms or refund policy',
  contact: 'Contact',
  spacer: 'Space',
};

/** Pictures with what they show; one, or several. */
export function Pictures({
  pictures,
  most,
  onChange,
}: {
  pictures: readonly PagePicture[];
  most: number;
  onChange: (pictures: readonly PagePicture[]) => void;
}) {
  async function add(file: File) {
    const answer = await upload(file, 'picture', file.name);
    if (!answer.ok) return sayTrouble(answer.words);
    onChange([...pictures, { fileId: answer.value.id, alt: '' }].slice(-most));
  }
  return (
    <div className="grid gap-3">
      {pictures.map((one, at) => (
        <div key={one.fileId} className="flex items-end gap-3">
          {/* biome-ignore lint/performance/noImgElement: a picture of the business's own */}
          <img src={`/files/own/${one.fileId}`} alt={one.alt} className="h-16 w-24 flex-none object-cover" />
          <Field
            label="What it shows"
            className="flex-1"
            value={one.alt}
            maxLength={200}
            onChange={(event) =>
              onChange(pictures.map((each, place) => (place === at ? { ...each, alt: event.target.value } : each)))
            }
          />
          <Button
            look="small-link"
            className="mb-2"
            onClick={() => onChange(pictures.filter((_, place) => place !== at))}
          >
            Remove
          </Button>
        </div>
      ))}
      {pictures.length < most ? (
        <FileDrop label="Choose a picture" accept="image/*" onFile={(file) => void add(file)} />
      ) : null}
    </div>
  );
}

/** What is written in a block, by its kind. */
export function BlockEditor({
  block,
  fields,
  currency,
  onChange,
}: {
  block: Block;
  fields: readonly OfferField[];
  currency: string;
  onChange: (part: Partial<Block>) => void;
}) {
  const text = (label: string, hint?: string) => (
    <Field
      label={label}
      hint={hint}
      value={block.text}
      maxLength={300}
      onChange={(event) => onChange({ text: event.target.value })}
    />
  );
  switch (block.kind) {
    case 'heading':
      return text('Words');
    case 'text':
      return <RichText label="Text" value={block.text} onChange={(html) => onChange({ text: html })} />;
    case 'picture':
      return (
        <div className="grid gap-3">
          <Pictures pictures={block.pictures} most={1} onChange={(pictures) => onChange({ pictures })} />
          {text('Words below it')}
        </div>
      );
    case 'gallery':
      return <Pictures pictures={block.pictures} most={24} onChange={(pictures) => onChange({ pictures })} />;
    case 'offer':
      return text('Words on its button', 'Empty for the usual ones.');
    case 'field':
      return fields.length === 0 ? (
        <p className="text-soft">The offer asks nothing of its own yet. Add a question to it first.</p>
      ) : (
        <SelectField
          label="Which question"
          value={block.fieldId}
          onChange={(event) => onChange({ fieldId: event.target.value })}
        >
          <option value="">choose one</option>
          {fields.map((field) => (
            <option key={field.id} value={field.id}>
              {field.label}
            </option>
          ))}
        </SelectField>
      );
    case 'goal':
      return text(`Goal in ${currency}`, 'What came in through this page counts.');
    case 'questions':
      return (
        <div className="grid gap-3">
          {[...block.questions, { ask: '', answer: '' }].map((one, at) => {
            const change = (part: Partial<typeof one>) => {
              const next = [...block.questions];
              next[at] = { ...one, ...part };
              onChange({ questions: next.filter(({ ask, answer }) => ask || answer) });
            };
            return (
              <div key={at} className="grid gap-2 border-b border-rule pb-3">
                <Field
                  label="Question"
                  value={one.ask}
                  maxLength={300}
                  onChange={(event) => change({ ask: event.target.value })}
                />
                <TextField
                  label="Answer"
                  rows={2}
                  value={one.answer}
                  maxLength={4000}
                  onChange={(event) => change({ answer: event.target.value })}
                />
              </div>
            );
          })}
        </div>
      );
    case 'terms':
      return (
        <TextField
          label="Text"
          rows={5}
          value={block.text}
          maxLength={20_000}
          onChange={(event) => onChange({ text: event.target.value })}
        />
      );
    default:
      return (
        <p className="text-soft">
          {block.kind === 'spacer' ? 'Some room.' : 'As it stands in the business’s profile.'}
        </p>
      );
  }
}
