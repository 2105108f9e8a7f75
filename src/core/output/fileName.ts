import filenamify from 'filenamify';

/** File systems take 255 bytes; some of that is left for what a browser or a mailbox adds. */
const MOST_BYTES = 200;

/** A design's name as a file name: nothing that a file system refuses, no half characters, never empty. */
export function fileName(design: string, ending: string): string {
  const bytes = (text: string) => new TextEncoder().encode(text).length;
  for (let length = 120; ; length = Math.floor(length * 0.8)) {
    const stem = filenamify(design, { replacement: ' ', maxLength: length })
      .replace(/\s+/g, ' ')
      .replace(/^[. ]+|[. ]+$/g, '');
    // What nothing is left of is an exclamation mark to the package.
    const safe = /^!?$/.test(stem) ? 'design' : stem;
    if (bytes(`${safe}.${ending}`) <= MOST_BYTES) return `${safe}.${ending}`;
  }
}
