/** Goes to a field of Details (or of the tray) by its name, unfolding its section. Answers whether it is there. */
export function focusField(label: string): boolean {
  const find = () =>
    document.querySelector<HTMLElement>(
      `[data-region=details] [aria-label="${CSS.escape(label)}"], [data-region=tray] [aria-label="${CSS.escape(label)}"]`,
    );
  const field = find();
  if (!field) return false;
  field.scrollIntoView({ block: 'nearest' });
  (field.matches('input, select, button') ? field : field.querySelector<HTMLElement>('button'))?.focus();
  return true;
}
