import { cieF, type Triple } from './spaces';

/** Reflectances 0…1 (or 0…100) from a first wavelength in nm on, at equal steps. */
export interface Spectrum {
  readonly start: number;
  readonly step: number;
  readonly values: readonly number[];
}

// 380…730 nm in steps of 10. CIE 1931 2° observer (CIE 018:2019) and illuminant D50 (CIE 15:2004), from memory; the
// tests hold the result against an independent program.
// prettier-ignore
const X = [0.001368, 0.004243, 0.01431, 0.04351, 0.13438, 0.2839, 0.34828, 0.3362, 0.2908, 0.19536, 0.09564, 0.03201, 0.0049, 0.0093, 0.06327, 0.1655, 0.2904, 0.43345, 0.5945, 0.7621, 0.9163, 1.0263, 1.0622, 1.0026, 0.85445, 0.6424, 0.4479, 0.2835, 0.1649, 0.0874, 0.04677, 0.0227, 0.011359, 0.00579, 0.002899, 0.00144];
// prettier-ignore
const Y = [0.000039, 0.00012, 0.000396, 0.00121, 0.004, 0.0116, 0.023, 0.038, 0.06, 0.09098, 0.13902, 0.20802, 0.323, 0.503, 0.71, 0.862, 0.954, 0.99495, 0.995, 0.952, 0.87, 0.757, 0.631, 0.503, 0.381, 0.265, 0.175, 0.107, 0.061, 0.032, 0.017, 0.00821, 0.004102, 0.002091, 0.001047, 0.00052];
// prettier-ignore
const Z = [0.00645, 0.02005, 0.06785, 0.2074, 0.6456, 1.3856, 1.74706, 1.77211, 1.6692, 1.28764, 0.81295, 0.46518, 0.272, 0.1582, 0.07825, 0.04216, 0.0203, 0.00875, 0.0039, 0.0021, 0.00165, 0.0011, 0.0008, 0.00034, 0.00019, 0.00005, 0.00002, 0, 0, 0, 0, 0, 0, 0, 0, 0];
// prettier-ignore
const D50 = [24.488, 29.871, 49.308, 56.513, 60.034, 57.818, 74.825, 87.247, 90.612, 91.368, 95.109, 91.963, 95.724, 96.613, 97.129, 102.099, 100.755, 102.317, 100, 97.735, 98.918, 93.499, 97.688, 99.269, 99.042, 95.722, 98.857, 95.667, 98.19, 103.003, 99.133, 87.381, 91.604, 92.889, 76.854, 86.511];

/** Lab (D50, 2°) of a reflectance spectrum; null for one that is too short to tell. Ends are held flat. */
export function labFromSpectrum({ start, step, values }: Spectrum): Triple | null {
  if (values.length < 8 || !(step > 0) || !Number.isFinite(start)) return null;
  const scale = Math.max(...values) > 2 ? 100 : 1;
  const at = (nm: number) => {
    const x = Math.min(values.length - 1, Math.max(0, (nm - start) / step));
    const i = Math.min(values.length - 2, Math.floor(x));
    return (values[i] + (x - i) * (values[i + 1] - values[i])) / scale;
  };
  const sum = (observer: readonly number[], reflectance: (nm: number) => number) =>
    observer.reduce((total, o, i) => total + o * D50[i] * reflectance(380 + 10 * i), 0);
  const [fx, fy, fz] = [X, Y, Z].map((o) => cieF(sum(o, at) / sum(o, () => 1)));
  return [116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)];
}
