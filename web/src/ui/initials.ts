/** `MR` of Mara Reed, `MA` of Mara. */
export function initials(name: string): string {
  const [first = "", ...rest] = name.trim().split(/\s+/);
  return `${first.slice(0, 1)}${rest.at(-1)?.slice(0, 1) ?? first.slice(1, 2)}`.toUpperCase();
}
