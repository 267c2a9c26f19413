import '@fontsource-variable/sofia-sans/wght.css';
import '@fontsource-variable/ubuntu-sans-mono/wght.css';
import './globals.css';
import { AntdRegistry } from '@ant-design/nextjs-registry';
import { type Metadata, type Viewport } from 'next';
import { type ReactNode } from 'react';
import { Offline } from '@/ui/Offline';
import { Theme } from '@/ui/Theme';

export const metadata: Metadata = {
  title: 'Zesty Bench',
  description: 'Check the parts, take the readings, find the fault: beside the board, from the bag to a working kit.',
};
export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

export default function RootLayout({ children }: { children: ReactNode }) {
  return (
    <html lang="en">
      <body>
        <AntdRegistry>
          <Theme>{children}</Theme>
          <Offline />
        </AntdRegistry>
      </body>
    </html>
  );
}
