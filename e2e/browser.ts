import { existsSync } from 'node:fs';

/** Debian's Chromium: the one without windows where it is there, for it paints what no eye sees a fifth faster. */
export const CHROMIUM =
  process.env.CHROMIUM_PATH ??
  ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'].find((f) => existsSync(f)) ??
  '/usr/bin/chromium';
