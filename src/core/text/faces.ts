/** The faces that ship, all under the SIL Open Font License 1.1; copied to public/fonts by scripts/copy-public.mjs. */
export interface FaceRow {
  readonly id: string;
  readonly family: string;
  readonly style: string;
  readonly kind: 'sans' | 'condensed' | 'serif' | 'slab' | 'display' | 'script' | 'blackletter' | 'mono';
  /** Folder and file inside the package that ships it. */
  readonly source: string;
}

const face = (id: string, family: string, style: string, kind: FaceRow['kind'], source: string): FaceRow => ({
  id,
  family,
  style,
  kind,
  source,
});

export const FACES: readonly FaceRow[] = [
  face('archivo-400', 'Archivo', 'Regular', 'sans', 'archivo/400Regular/Archivo_400Regular.ttf'),
  face('archivo-600', 'Archivo', 'SemiBold', 'sans', 'archivo/600SemiBold/Archivo_600SemiBold.ttf'),
  face('archivo-800', 'Archivo', 'ExtraBold', 'sans', 'archivo/800ExtraBold/Archivo_800ExtraBold.ttf'),
  face('comfortaa-700', 'Comfortaa', 'Bold', 'sans', 'comfortaa/700Bold/Comfortaa_700Bold.ttf'),
  face('oswald-500', 'Oswald', 'Medium', 'condensed', 'oswald/500Medium/Oswald_500Medium.ttf'),
  face('anton-400', 'Anton', 'Regular', 'condensed', 'anton/400Regular/Anton_400Regular.ttf'),
  face('eb-garamond-400', 'EB Garamond', 'Regular', 'serif', 'eb-garamond/400Regular/EBGaramond_400Regular.ttf'),
  face('eb-garamond-600', 'EB Garamond', 'SemiBold', 'serif', 'eb-garamond/600SemiBold/EBGaramond_600SemiBold.ttf'),
  face(
    'cormorant-600',
    'Cormorant Garamond',
    'SemiBold',
    'serif',
    'cormorant-garamond/600SemiBold/CormorantGaramond_600SemiBold.ttf',
  ),
  face('playfair-700', 'Playfair Display', 'Bold', 'serif', 'playfair-display/700Bold/PlayfairDisplay_700Bold.ttf'),
  face(
    'frank-ruhl-500',
    'Frank Ruhl Libre',
    'Medium',
    'serif',
    'frank-ruhl-libre/500Medium/FrankRuhlLibre_500Medium.ttf',
  ),
  face(
    'noto-arabic-500',
    'Noto Sans Arabic',
    'Medium',
    'sans',
    'noto-sans-arabic/500Medium/NotoSansArabic_500Medium.ttf',
  ),
  face('bitter-500', 'Bitter', 'Medium', 'slab', 'bitter/500Medium/Bitter_500Medium.ttf'),
  face('alfa-slab-400', 'Alfa Slab One', 'Regular', 'slab', 'alfa-slab-one/400Regular/AlfaSlabOne_400Regular.ttf'),
  face('cinzel-600', 'Cinzel', 'SemiBold', 'display', 'cinzel/600SemiBold/Cinzel_600SemiBold.ttf'),
  face('caveat-600', 'Caveat', 'SemiBold', 'script', 'caveat/600SemiBold/Caveat_600SemiBold.ttf'),
  face('great-vibes-400', 'Great Vibes', 'Regular', 'script', 'great-vibes/400Regular/GreatVibes_400Regular.ttf'),
  face(
    'grenze-gotisch-500',
    'Grenze Gotisch',
    'Medium',
    'blackletter',
    'grenze-gotisch/500Medium/GrenzeGotisch_500Medium.ttf',
  ),
  face(
    'jetbrains-mono-500',
    'JetBrains Mono',
    'Medium',
    'mono',
    'jetbrains-mono/500Medium/JetBrainsMono_500Medium.ttf',
  ),
];

const faceRow = (id: string): FaceRow | undefined => FACES.find((f) => f.id === id);

/** A face by the name that people use: “Bitter Medium”. One that does not ship goes by the words of its id. */
export function faceName(id: string): string {
  const row = faceRow(id);
  return row ? `${row.family} ${row.style}` : id.replace(/[-_]+/g, ' ');
}
