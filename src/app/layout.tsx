import type { Metadata } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { Look } from '@/studio/look/Look';

export const metadata: Metadata = { title: 'Enstegon', description: 'Rooms and small houses, from the plan to the client.' };

export default async function Layout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  return (
    <html lang="en">
      <body>
        <Look nonce={nonce}>{children}</Look>
      </body>
    </html>
  );
}
