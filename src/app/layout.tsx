import '@fontsource-variable/vollkorn/wght.css';
import '@fontsource-variable/vollkorn/wght-italic.css';
import '@fontsource-variable/encode-sans/wght.css';
import '@/ui/styles.css';
import type { Metadata } from 'next';
import { connection } from 'next/server';
import type { ReactNode } from 'react';
import { deskSetting } from './setting';

export const metadata: Metadata = { title: { default: 'Dahlia', template: '%s · Dahlia' }, robots: { index: false } };

export default async function RootLayout({ children }: { children: ReactNode }) {
  // Every page is made for its request: the content policy's nonce is new each time.
  await connection();
  const { night, covered } = await deskSetting();
  return (
    <html
      lang="en"
      data-setting={night ? 'night' : 'day'}
      data-covered={covered ? 'yes' : 'no'}
      suppressHydrationWarning
    >
      <body>{children}</body>
    </html>
  );
}
