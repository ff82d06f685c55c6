import { isUUID } from 'class-validator';
import { NextResponse } from 'next/server';
import { pageAnswer, visitorOf } from '@/app/answer';
import { currentActor } from '@/app/session';
import { pageProof } from '@/flows/checkout/hosted-page';
import { Refusal } from '@/flows/door/refusal';

/** A page as it is being edited, by the code that serves its visitors. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<NextResponse> {
  return pageAnswer(async () => {
    const actor = await currentActor();
    if (!actor) throw new Refusal('not-signed-in');
    const { id } = await params;
    return isUUID(id) ? pageProof(actor, id, visitorOf(request)) : null;
  }, "'self'");
}
