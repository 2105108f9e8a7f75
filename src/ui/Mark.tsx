/** The house's mark: a vault with a door. */
export function Mark({ size = 26 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 32 32" aria-hidden focusable="false">
      <path d="M5 28V14a11 11 0 0 1 22 0v14" fill="none" stroke="currentColor" strokeWidth="4" />
      <path d="M12 28V16a4 4 0 0 1 8 0v12z" fill="var(--accent)" />
    </svg>
  );
}
