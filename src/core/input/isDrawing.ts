/** Is it an SVG drawing, plain or packed? By its name or its first bytes. */
export function isDrawing(name: string, bytes: Uint8Array): boolean {
  if (/\.svgz?$/i.test(name)) return true;
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 1024));
  return /<svg[\s>]/.test(head) || (/^\s*(\xef\xbb\xbf)?<\?xml/.test(head) && /<!DOCTYPE\s+svg/i.test(head));
}
