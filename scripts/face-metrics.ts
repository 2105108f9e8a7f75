// Writes src/core/text/faceMetrics.ts: what is compared when a shipped face is to stand in for a missing one.
import { readFile, writeFile } from 'node:fs/promises';
import { openFace } from '@/core/text/face';
import { FACES } from '@/core/text/faces';
import { meanWidth } from '@/core/text/measures';

const rows: string[] = [];
for (const { id } of FACES) {
  const face = await openFace(id, await readFile(`public/fonts/${id}.ttf`));
  rows.push(`  '${id}': [${meanWidth(face).toFixed(3)}, ${face.xHeight.toFixed(3)}],`);
}
await writeFile(
  'src/core/text/faceMetrics.ts',
  `import { table } from '../model/own';

/**
 * Mean width of the small letters and height of the x of every shipped face, shares of the size. Written by
 * scripts/face-metrics.ts.
 */
export const FACE_METRICS = table<readonly [width: number, xHeight: number]>({
${rows.join('\n')}
});
`,
);
