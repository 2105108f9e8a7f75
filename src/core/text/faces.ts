import { isOwnFace, type FaceKind, type OwnFace } from '../model/faceSchema';
import type { Design } from '../model/schema';

/**
 * The faces that ship, all under the SIL Open Font License 1.1; copied to public/fonts by scripts/copy-public.mjs,
 * which reads this table.
 */
export interface FaceRow {
  readonly id: string;
  readonly family: string;
  /** As people say it: Regular, Bold Italic. */
  readonly style: string;
  readonly weight: number;
  readonly italic: boolean;
  readonly kind: FaceKind;
}

const WEIGHTS: readonly (readonly [number, string])[] = [
  [300, 'Light'],
  [400, 'Regular'],
  [500, 'Medium'],
  [600, 'SemiBold'],
  [700, 'Bold'],
  [800, 'ExtraBold'],
];

/** A family: how its ids begin, its name, its kind, its package and files there, its weights (`i` italic). */
function family(id: string, name: string, kind: FaceKind, _package: string, _file: string, styles: string): FaceRow[] {
  return styles.split(' ').map((style) => {
    const [weight, italic] = [Number.parseInt(style, 10), style.endsWith('i')];
    const word = WEIGHTS.find(([w]) => w === weight)?.[1] ?? '';
    return {
      id: `${id}-${style}`,
      family: name,
      style: italic ? (weight === 400 ? 'Italic' : `${word} Italic`) : word,
      weight,
      italic,
      kind,
    };
  });
}

// prettier-ignore
const FAMILIES: readonly FaceRow[][] = [
  family('archivo', 'Archivo', 'sans', 'archivo', 'Archivo', '400 400i 600 700 700i 800'),
  family('inter', 'Inter', 'sans', 'inter', 'Inter', '300 400 400i 600 700'),
  family('montserrat', 'Montserrat', 'sans', 'montserrat', 'Montserrat', '400 400i 600 800'),
  family('fira-sans', 'Fira Sans', 'sans', 'fira-sans', 'FiraSans', '400 400i 600 700'),
  family('comfortaa', 'Comfortaa', 'sans', 'comfortaa', 'Comfortaa', '400 700'),
  family('comic-neue', 'Comic Neue', 'sans', 'comic-neue', 'ComicNeue', '400 400i 700'),
  family('noto-arabic', 'Noto Sans Arabic', 'sans', 'noto-sans-arabic', 'NotoSansArabic', '400 500 700'),
  family('oswald', 'Oswald', 'condensed', 'oswald', 'Oswald', '400 500 700'),
  family('anton', 'Anton', 'condensed', 'anton', 'Anton', '400'),
  family('bebas-neue', 'Bebas Neue', 'condensed', 'bebas-neue', 'BebasNeue', '400'),
  family('eb-garamond', 'EB Garamond', 'serif', 'eb-garamond', 'EBGaramond', '400 400i 600 600i 700'),
  family('cormorant', 'Cormorant Garamond', 'serif', 'cormorant-garamond', 'CormorantGaramond', '400 600 600i'),
  family('playfair', 'Playfair Display', 'serif', 'playfair-display', 'PlayfairDisplay', '400 700 700i'),
  family('source-serif', 'Source Serif 4', 'serif', 'source-serif-4', 'SourceSerif4', '400 400i 700'),
  family('alegreya', 'Alegreya', 'serif', 'alegreya', 'Alegreya', '400 400i 700'),
  family('frank-ruhl', 'Frank Ruhl Libre', 'serif', 'frank-ruhl-libre', 'FrankRuhlLibre', '400 500 700'),
  family('bitter', 'Bitter', 'slab', 'bitter', 'Bitter', '400 400i 500 700'),
  family('alfa-slab', 'Alfa Slab One', 'slab', 'alfa-slab-one', 'AlfaSlabOne', '400'),
  family('cinzel', 'Cinzel', 'display', 'cinzel', 'Cinzel', '400 600 800'),
  family('abril', 'Abril Fatface', 'display', 'abril-fatface', 'AbrilFatface', '400'),
  family('unbounded', 'Unbounded', 'display', 'unbounded', 'Unbounded', '400 700'),
  family('russo', 'Russo One', 'display', 'russo-one', 'RussoOne', '400'),
  family('caveat', 'Caveat', 'script', 'caveat', 'Caveat', '400 600'),
  family('great-vibes', 'Great Vibes', 'script', 'great-vibes', 'GreatVibes', '400'),
  family('lobster', 'Lobster', 'script', 'lobster', 'Lobster', '400'),
  family('grenze-gotisch', 'Grenze Gotisch', 'blackletter', 'grenze-gotisch', 'GrenzeGotisch', '500 700'),
  family('jetbrains-mono', 'JetBrains Mono', 'mono', 'jetbrains-mono', 'JetBrainsMono', '400 500 700'),
  family('courier-prime', 'Courier Prime', 'mono', 'courier-prime', 'CourierPrime', '400 400i 700'),
];

export const FACES: readonly FaceRow[] = FAMILIES.flat();

const BY_ID = new Map(FACES.map((f) => [f.id, f]));
/** The row of a face that ships. */
export const faceRow = (id: string): FaceRow | undefined => BY_ID.get(id);

/** What a design knows of a face without its file: of those that ship and of its own; undefined for another. */
export const faceIn = (d: Pick<Design, 'faces'>, id: string): FaceRow | OwnFace | undefined =>
  BY_ID.get(id) ?? d.faces?.find((f) => f.id === id);

/**
 * A face by the name that people use: “Bitter Medium”. One that the design knows nothing of goes by the words of its
 * id.
 */
export function faceName(d: Pick<Design, 'faces'>, id: string): string {
  const row = faceIn(d, id);
  if (row) return `${row.family} ${row.style}`.trim();
  return isOwnFace(id) ? 'a face without a name' : id.replace(/[-_]+/g, ' ');
}
