import { NextResponse } from 'next/server';
import { pageAnswer, visitorOf } from '@/app/answer';
import { hostedPage } from '@/flows/checkout/hosted-page';

/** A hosted page as its visitors get it: finished HTML, nothing that runs. */
export async function GET(request: Request, { params }: { params: Promise<{ name: string }> }): Promise<NextResponse> {
  return pageAnswer(() => params.then(({ name }) => hostedPage(name, visitorOf(request))), "'none'");
}
