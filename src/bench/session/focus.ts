/** Sheets that no button opened give the keys back to the bench top. */
export function backToBench(e?: Event): void {
  e?.preventDefault();
  document.getElementById('bench-top')?.focus({ preventScroll: true });
}
