/** The element that holds the sheet and takes the keys. */
export const BENCH_TOP = 'bench-top';

/** Sheets that no button opened give the keys back to the bench top. */
export function backToBench(e?: Event): void {
  e?.preventDefault();
  document.getElementById(BENCH_TOP)?.focus({ preventScroll: true });
}

/** The hidden field that takes the keys of the text being written in. */
export const LETTERS = 'letters';

/** Gives the keys back to the text that is being written in; answers whether there is one. */
export function backToLetters(): boolean {
  const field = document.getElementById(LETTERS);
  field?.focus({ preventScroll: true });
  return field !== null;
}
