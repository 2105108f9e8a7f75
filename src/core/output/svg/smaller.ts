import { OURS } from '../../input/svg/ours';

/**
 * An SVG with what only our reader needs taken out, and numbers, paths and styles written as short as they can be. It
 * looks the same.
 */
export async function smallerSvg(svg: string): Promise<string> {
  const { optimize } = await import('svgo/browser');
  return optimize(svg, {
    multipass: true,
    floatPrecision: 3,
    plugins: [
      // Ours goes first: what it names is no longer used then.
      { name: 'removeEditorsNSData', params: { additionalNamespaces: [OURS] } },
      {
        name: 'preset-default',
        params: {
          overrides: {
            // The title is what it is called aloud; groups that blend by themselves must stay groups.
            removeDesc: false,
            mergePaths: false,
            collapseGroups: false,
          },
        },
      },
    ],
  }).data;
}
