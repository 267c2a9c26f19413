import type { MetadataRoute } from 'next';
import { LIGHT } from '@/ui/theme/tokens';

export const dynamic = 'force-static';

/** What a browser needs to install the bench beside other programs. */
export default function manifest(): MetadataRoute.Manifest {
  return {
    name: 'Zesty Bench',
    short_name: 'Zesty Bench',
    description: 'Check the parts, take the readings, find the fault.',
    start_url: '/',
    display: 'standalone',
    background_color: LIGHT.ground,
    theme_color: LIGHT.ground,
    icons: [{ src: '/icon.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' }],
  };
}
