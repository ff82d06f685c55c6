import { NextResponse } from 'next/server';

const TEXT = `<!doctype html><html lang="en"><head><title>Bare</title></head><body><main>${'<p>Finished.</p>'.repeat(40)}</main></body></html>`;

/** Finished HTML from a handler and nothing else: what hosted pages are measured against. */
export const GET = () =>
  process.env.DAHLIA_DEMO
    ? new NextResponse(TEXT, { headers: { 'content-type': 'text/html; charset=utf-8' } })
    : new NextResponse(null, { status: 404 });
