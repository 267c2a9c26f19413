import '@fontsource-variable/sofia-sans/wght.css';
import '@fontsource-variable/ubuntu-sans-mono/wght.css';
import './globals.css';
import { AntdRegistry } from '@ant-design/nextjs-registry';
import type { Metadata, Viewport } from 'next';
import type { ReactNode } from 'react';
import { Offline } from '@/ui/shell/Offline';
import { BOOT_SCRIPT } from '@/ui/theme/boot';
import { Theme } from '@/ui/theme/Theme';
import { VARIABLES } from '@/ui/theme/tokens';

export const metadata: Metadata = {
  title: 'Zesty Bench',
  description: 'Check the parts, take the readings, find the fault: beside the board, from the bag to a working kit.',
};
export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

export default function RootLayout({ children }: { children: ReactNode }) {
  return (
    <html lang="en" suppressHydrationWarning>
      <head>
        <style dangerouslySetInnerHTML={{ __html: VARIABLES }} />
        <script dangerouslySetInnerHTML={{ __html: BOOT_SCRIPT }} />
      </head>
      <body>
        <AntdRegistry layer>
          <Theme>{children}</Theme>
          <Offline />
        </AntdRegistry>
      </body>
    </html>
  );
}
