import type { Metadata } from 'next';
import { connection } from 'next/server';
import type { ReactNode } from 'react';
import { Offline } from '@/ui/Offline';
import './globals.css';

export const metadata: Metadata = {
  title: 'Holvet',
  description: 'Print-ready posters, logos and certificates, drawn in inks.',
};

export default async function RootLayout({ children }: { children: ReactNode }) {
  await connection(); // every page is rendered per request: the policy's nonce cannot reach prerendered HTML
  return (
    <html lang="en">
      <body>
        {children}
        <Offline />
      </body>
    </html>
  );
}
