import type { Making } from '@/core/model/defaults';
import type { Design, Picture } from '@/core/model/schema';
import type { FontBook } from '@/core/text/fonts';

/** A picture of the drawer: the stand-in for a stock library. Made by scripts/drawer/make.mjs. */
export interface DrawerPicture {
  readonly file: string;
  readonly title: string;
  /** Everyday words that find it. */
  readonly words: string;
  /** What a design keeps of it; a drawing is taken in as shapes instead. */
  readonly picture: Pick<Picture, 'width' | 'height' | 'space' | 'alpha'> | null;
  /** A drawing that is no file: what lies on the page of a design of its size, which the file only shows. */
  readonly drawn?: () => Promise<(make: Making, fonts: FontBook) => Design>;
  /** Made to be laid side by side. */
  readonly tile?: boolean;
}

const rgb = (width: number, height: number) => ({ width, height, space: 'rgb' }) as const;
const gray = (width: number, height: number) => ({ width, height, space: 'gray' }) as const;

const DRAWER: readonly DrawerPicture[] = [
  {
    file: 'harbour-dusk.jpg',
    title: 'Harbour at dusk',
    words: 'quay evening sunset houses town sky sea',
    picture: rgb(1800, 1200),
  },
  {
    file: 'harbour-water.jpg',
    title: 'Harbour water',
    words: 'sea night lights ripples waves reflection',
    picture: rgb(4000, 1400),
  },
  {
    file: 'fog-over-the-quay.jpg',
    title: 'Fog over the quay',
    words: 'mist posts morning grey weather',
    picture: rgb(1500, 1000),
  },
  { file: 'lantern-glow.jpg', title: 'Lantern glow', words: 'light lamp paper fire warm', picture: rgb(1400, 1400) },
  {
    file: 'paper-moon.png',
    title: 'Paper moon',
    words: 'night round cut out transparent sky',
    picture: { ...rgb(1000, 1000), alpha: true },
  },
  {
    file: 'guild-mark-on-white.png',
    title: 'Guild mark on white',
    words: 'logo lantern badge surround',
    picture: rgb(1200, 1200),
  },
  { file: 'wet-slate.jpg', title: 'Wet slate', words: 'stone wall roof texture dark', picture: rgb(1400, 1000) },
  {
    file: 'quay-planks.jpg',
    title: 'Quay planks',
    words: 'wood boards texture floor tile',
    picture: rgb(1200, 1200),
    tile: true,
  },
  {
    file: 'paper-grain.png',
    title: 'Paper grain',
    words: 'texture rough ground tile',
    picture: gray(512, 512),
    tile: true,
  },
  {
    file: 'sailcloth.png',
    title: 'Sailcloth',
    words: 'weave fabric canvas texture tile',
    picture: gray(256, 256),
    tile: true,
  },
  { file: 'net.png', title: 'Net', words: 'fishing mesh pattern tile', picture: gray(240, 240), tile: true },
  { file: 'boats.svg', title: 'Three boats', words: 'ship sail drawing shapes vector svg', picture: null },
  {
    file: 'harbour-in-lines.png',
    title: 'Harbour in lines',
    words: 'drawing coloured quay houses boat lighthouse shapes vector',
    picture: null,
    drawn: () => import('./harbourLines').then((m) => m.harbourInLines),
  },
  { file: 'gulls.svg', title: 'Gulls', words: 'birds sea drawing shapes vector svg', picture: null },
];

/** Pictures whose title or words begin with every word asked for. */
export function findDrawer(query: string): readonly DrawerPicture[] {
  const asked = query.toLowerCase().split(/\s+/).filter(Boolean);
  return DRAWER.filter((d) =>
    asked.every((w) =>
      `${d.title} ${d.words}`
        .toLowerCase()
        .split(' ')
        .some((x) => x.startsWith(w)),
    ),
  );
}
