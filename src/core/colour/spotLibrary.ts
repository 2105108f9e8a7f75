import type { Ink } from '../model/schema';

/** “Marrowick Tins”, an invented library: the number is lightness and hue. Made by scripts/make-spot-library.ts. */
export const SPOT_LIBRARY: readonly Omit<Ink, 'id'>[] = [
  { name: 'Ember 66-43', lab: [66, 62, 58], alternate: [0, 0.68, 0.88, 0] },
  { name: 'Kelp 38-167', lab: [38, -34, 8], alternate: [0.88, 0.28, 0.72, 0.18] },
  { name: 'Pewter 62-252', lab: [62, -1, -3], alternate: [0.18, 0.12, 0.12, 0.4] },
  { name: 'Taper 90-92', lab: [90, -2, 46], alternate: [0.04, 0.06, 0.56, 0] },
  { name: 'Rosehip 46-24', lab: [46, 62, 28], alternate: [0, 0.96, 0.61, 0.15] },
  { name: 'Coral Rope 68-32', lab: [68, 49, 31], alternate: [0, 0.64, 0.48, 0] },
  { name: 'Brick Quay 42-38', lab: [42, 38, 30], alternate: [0.05, 0.8, 0.78, 0.36] },
  { name: 'Flare 60-40', lab: [60, 70, 59], alternate: [0, 0.87, 0.94, 0] },
  { name: 'Salmon Net 78-45', lab: [78, 24, 24], alternate: [0.02, 0.37, 0.36, 0.02] },
  { name: 'Rust Chain 40-51', lab: [40, 28, 34], alternate: [0.09, 0.69, 0.92, 0.43] },
  { name: 'Lantern Oil 72-62', lab: [72, 38, 72], alternate: [0, 0.51, 0.92, 0.01] },
  { name: 'Fox 54-58', lab: [54, 33, 53], alternate: [0.01, 0.59, 0.94, 0.23] },
  { name: 'Apricot 82-68', lab: [82, 17, 43], alternate: [0.01, 0.29, 0.55, 0.01] },
  { name: 'Tallow 92-85', lab: [92, 2, 22], alternate: [0.05, 0.09, 0.28, 0] },
  { name: 'Beeswax 80-76', lab: [80, 15, 62], alternate: [0.02, 0.29, 0.78, 0.01] },
  { name: 'Brass 62-77', lab: [62, 10, 45], alternate: [0.19, 0.37, 0.83, 0.16] },
  { name: 'Gorse 86-88', lab: [86, 3, 92], alternate: [0.01, 0.11, 0.97, 0.04] },
  { name: 'Straw 88-90', lab: [88, 0, 50], alternate: [0.07, 0.11, 0.61, 0] },
  { name: 'Ochre Sail 68-82', lab: [68, 8, 59], alternate: [0.15, 0.31, 0.92, 0.11] },
  { name: 'Primrose 94-100', lab: [94, -7, 39], alternate: [0.07, 0.03, 0.44, 0] },
  { name: 'Lemon Rind 92-98', lab: [92, -13, 95], alternate: [0.09, 0.01, 0.99, 0] },
  { name: 'Moss 50-111', lab: [50, -16, 41], alternate: [0.42, 0.12, 0.96, 0.41] },
  { name: 'Samphire 70-118', lab: [70, -27, 51], alternate: [0.47, 0.03, 0.89, 0.07] },
  { name: 'Lichen 80-123', lab: [80, -16, 25], alternate: [0.33, 0.04, 0.49, 0.01] },
  { name: 'Reed 58-127', lab: [58, -23, 30], alternate: [0.54, 0.13, 0.79, 0.19] },
  { name: 'Ivy 34-136', lab: [34, -23, 22], alternate: [0.67, 0.16, 0.95, 0.58] },
  { name: 'Fern 52-140', lab: [52, -43, 36], alternate: [0.74, 0.02, 0.97, 0.22] },
  { name: 'Mint Rope 84-150', lab: [84, -24, 14], alternate: [0.35, 0.01, 0.34, 0] },
  { name: 'Bottle 36-157', lab: [36, -37, 16], alternate: [0.88, 0.06, 0.93, 0.5] },
  { name: 'Jade Float 60-162', lab: [60, -46, 15], alternate: [0.77, 0, 0.68, 0.07] },
  { name: 'Sea Glass 78-172', lab: [78, -30, 4], alternate: [0.49, 0, 0.34, 0.01] },
  { name: 'Harbour 44-183', lab: [44, -34, -2], alternate: [0.85, 0.09, 0.52, 0.35] },
  { name: 'Shoal 66-191', lab: [66, -35, -7], alternate: [0.68, 0, 0.34, 0.06] },
  { name: 'Verdigris 56-200', lab: [56, -28, -10], alternate: [0.7, 0.05, 0.31, 0.21] },
  { name: 'Lagoon 54-213', lab: [54, -35, -23], alternate: [0.84, 0.01, 0.21, 0.19] },
  { name: 'Spray 84-218', lab: [84, -14, -11], alternate: [0.34, 0.02, 0.1, 0] },
  { name: 'Petrol 32-223', lab: [32, -19, -18], alternate: [0.9, 0.24, 0.23, 0.54] },
  { name: 'Heron 64-237', lab: [64, -13, -20], alternate: [0.54, 0.15, 0.1, 0.13] },
  { name: 'Tide 50-242', lab: [50, -21, -39], alternate: [0.86, 0.21, 0.01, 0.16] },
  { name: 'Skylark 74-249', lab: [74, -11, -28], alternate: [0.49, 0.13, 0.02, 0.01] },
  { name: 'Mussel 28-264', lab: [28, -3, -30], alternate: [0.91, 0.54, 0.02, 0.46] },
  { name: 'Slate Blue 44-268', lab: [44, -1, -34], alternate: [0.75, 0.46, 0, 0.19] },
  { name: 'Deep Sound 26-284', lab: [26, 14, -56], alternate: [1, 0.83, 0, 0.04] },
  { name: 'Cornflower 54-282', lab: [54, 11, -51], alternate: [0.67, 0.49, 0, 0] },
  { name: 'Night Watch 20-292', lab: [20, 13, -33], alternate: [0.94, 0.92, 0, 0.41] },
  { name: 'Iris 42-300', lab: [42, 29, -50], alternate: [0.71, 0.73, 0, 0] },
  { name: 'Heather 64-310', lab: [64, 21, -25], alternate: [0.34, 0.45, 0, 0.03] },
  { name: 'Plum Skin 28-318', lab: [28, 30, -27], alternate: [0.63, 0.95, 0, 0.28] },
  { name: 'Foxglove 54-328', lab: [54, 49, -31], alternate: [0.36, 0.71, 0, 0] },
  { name: 'Damson 30-336', lab: [30, 33, -15], alternate: [0.4, 0.91, 0.01, 0.44] },
  { name: 'Sea Pink 74-346', lab: [74, 37, -9], alternate: [0.07, 0.47, 0.03, 0.01] },
  { name: 'Mallow 50-350', lab: [50, 63, -11], alternate: [0.15, 0.9, 0.02, 0.04] },
  { name: 'Beetroot 34-2', lab: [34, 48, 2], alternate: [0, 0.96, 0.11, 0.47] },
  { name: 'Thrift 64-6', lab: [64, 56, 6], alternate: [0, 0.7, 0.16, 0.02] },
  { name: 'Shell 88-21', lab: [88, 13, 5], alternate: [0.03, 0.21, 0.11, 0] },
  { name: 'Poppy 52-30', lab: [52, 71, 41], alternate: [0, 0.95, 0.75, 0.03] },
  { name: 'Chalk Dust 92-90', lab: [92, 0, 4], alternate: [0.09, 0.07, 0.12, 0] },
  { name: 'Oyster 78-90', lab: [78, 0, 8], alternate: [0.22, 0.18, 0.27, 0.05] },
  { name: 'Gull 70-259', lab: [70, -1, -5], alternate: [0.34, 0.23, 0.2, 0.08] },
  { name: 'Graphite 36-270', lab: [36, 0, -4], alternate: [0.57, 0.46, 0.4, 0.49] },
  { name: 'Tar 14-45', lab: [14, 2, 2], alternate: [0.52, 0.53, 0.5, 0.95] },
  { name: 'Peat 26-65', lab: [26, 6, 13], alternate: [0.35, 0.55, 0.78, 0.73] },
  { name: 'Driftwood 60-72', lab: [60, 5, 15], alternate: [0.31, 0.35, 0.48, 0.18] },
];

/** Inks whose words or number begin with what is typed, every word of it: all of them for an empty search. */
export function findInks<T extends { readonly name: string }>(inks: readonly T[], query: string): readonly T[] {
  const wanted = query.trim().toLowerCase().split(/\s+/).filter(Boolean);
  return inks.filter((ink) => {
    const parts = ink.name.toLowerCase().split(' ');
    const words = ink.name.toLowerCase().split(/[\s-]+/);
    return wanted.every((w) => words.some((x) => x.startsWith(w)) || parts.some((x) => x.startsWith(w)));
  });
}

/** Inks of the shipped library whose names answer a search. */
export const findSpots = (query: string): readonly Omit<Ink, 'id'>[] => findInks(SPOT_LIBRARY, query);
