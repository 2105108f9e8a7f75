import type { MetadataRoute } from 'next';

/** What a system needs to install it as a program of its own (W3C Web Application Manifest). */
export default function manifest(): MetadataRoute.Manifest {
  return {
    name: 'Holvet',
    short_name: 'Holvet',
    description: 'Print-ready posters, logos and certificates, drawn in inks.',
    start_url: '/',
    display: 'standalone',
    background_color: '#f3f3f3',
    theme_color: '#f3f3f3',
    icons: [192, 512].flatMap((size) => [
      { src: `/icons/${size}.png`, sizes: `${size}x${size}`, type: 'image/png', purpose: 'any' as const },
      { src: `/icons/${size}.png`, sizes: `${size}x${size}`, type: 'image/png', purpose: 'maskable' as const },
    ]),
  };
}
