'use client';
import { linkPicture } from '@/core/offer/link-look';
import { PictureField } from '../picture-field';
import { Collapsible } from './collapsible';
import type { OfferEditing } from './use-offer';

/** The picture over a link's page, which chats show with it. */
export function LinkSection({ of }: { of: OfferEditing }) {
  const { draft, setDraft } = of;
  const picture = linkPicture(draft.look);
  return (
    <Collapsible name="Picture" now={picture ? 'one' : 'none'}>
      <PictureField
        name="picture"
        purpose="picture"
        fileId={picture}
        onPicture={(fileId) => setDraft({ ...draft, look: { ...draft.look, picture: fileId } })}
      />
      <p className="small text-soft">It stands over the page, and chats show it with the link.</p>
    </Collapsible>
  );
}
