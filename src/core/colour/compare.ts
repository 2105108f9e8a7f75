import type { Triple } from './spaces';

const DEG = Math.PI / 180;

/** CIEDE2000 with kL = kC = kH = 1 (Sharma, Wu, Dalal 2005, equations 2–22). */
export function deltaE00([l1, a1, b1]: Triple, [l2, a2, b2]: Triple): number {
  const c1 = Math.hypot(a1, b1);
  const c2 = Math.hypot(a2, b2);
  const mean7 = ((c1 + c2) / 2) ** 7;
  const g = 0.5 * (1 - Math.sqrt(mean7 / (mean7 + 25 ** 7)));
  const ap1 = (1 + g) * a1;
  const ap2 = (1 + g) * a2;
  const cp1 = Math.hypot(ap1, b1);
  const cp2 = Math.hypot(ap2, b2);
  const hue = (a: number, b: number) => (a === 0 && b === 0 ? 0 : (Math.atan2(b, a) / DEG + 360) % 360);
  const hp1 = hue(ap1, b1);
  const hp2 = hue(ap2, b2);

  const dL = l2 - l1;
  const dC = cp2 - cp1;
  let dh = 0;
  if (cp1 * cp2 !== 0) {
    dh = hp2 - hp1;
    if (dh > 180) dh -= 360;
    else if (dh < -180) dh += 360;
  }
  const dH = 2 * Math.sqrt(cp1 * cp2) * Math.sin((dh / 2) * DEG);

  const lMean = (l1 + l2) / 2;
  const cMean = (cp1 + cp2) / 2;
  let hMean = hp1 + hp2;
  if (cp1 * cp2 !== 0) {
    if (Math.abs(hp1 - hp2) <= 180) hMean /= 2;
    else hMean = hMean < 360 ? (hMean + 360) / 2 : (hMean - 360) / 2;
  }
  const t =
    1 -
    0.17 * Math.cos((hMean - 30) * DEG) +
    0.24 * Math.cos(2 * hMean * DEG) +
    0.32 * Math.cos((3 * hMean + 6) * DEG) -
    0.2 * Math.cos((4 * hMean - 63) * DEG);
  const dTheta = 30 * Math.exp(-(((hMean - 275) / 25) ** 2));
  const rC = 2 * Math.sqrt(cMean ** 7 / (cMean ** 7 + 25 ** 7));
  const sL = 1 + (0.015 * (lMean - 50) ** 2) / Math.sqrt(20 + (lMean - 50) ** 2);
  const sC = 1 + 0.045 * cMean;
  const sH = 1 + 0.015 * cMean * t;
  const rT = -Math.sin(2 * dTheta * DEG) * rC;
  const x = dL / sL;
  const y = dC / sC;
  const z = dH / sH;
  return Math.sqrt(x * x + y * y + z * z + rT * y * z);
}
