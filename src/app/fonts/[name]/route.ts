import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { NextResponse } from 'next/server';

const FILES: Readonly<Record<string, string>> = {
  vollkorn: '@fontsource-variable/vollkorn/files/vollkorn-latin-wght-normal.woff2',
  'encode-sans': '@fontsource-variable/encode-sans/files/encode-sans-latin-wght-normal.woff2',
};

/** The two faces, for pages that are finished HTML. */
export async function GET(_request: Request, { params }: { params: Promise<{ name: string }> }): Promise<NextResponse> {
  const file = FILES[(await params).name];
  if (!file) return new NextResponse(null, { status: 404 });
  const bytes = await readFile(join(process.cwd(), 'node_modules', file));
  return new NextResponse(new Uint8Array(bytes), {
    headers: { 'content-type': 'font/woff2', 'cache-control': 'public, max-age=31536000, immutable' },
  });
}
