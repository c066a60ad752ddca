/** Which program a session is of, as its user would call it. */
export function browser(program: string): string {
  const names: [RegExp, string][] = [
    [/Edg\//, "Edge"],
    [/Firefox\//, "Firefox"],
    [/Chrom(e|ium)\//, "Chrome or Chromium"],
    [/Safari\//, "Safari"],
  ];
  const name = names.find(([pattern]) => pattern.test(program))?.[1];
  const systems: [RegExp, string][] = [
    [/iPhone|iPad/, "iPhone or iPad"],
    [/Android/, "Android"],
    [/Windows/, "Windows"],
    [/Mac OS X/, "Mac"],
    [/Linux/, "Linux"],
  ];
  const system = systems.find(([pattern]) => pattern.test(program))?.[1];
  if (!name) return program === "" ? "A program that does not say what it is" : program;
  return system ? `${name} on ${system}` : name;
}

/** A moment in the reader's own time: the hour today, else the day too. */
export function since(iso: string, now = new Date()): string {
  const at = new Date(iso);
  const time = at.toLocaleTimeString(undefined, { hour: "2-digit", minute: "2-digit" });
  return at.toDateString() === now.toDateString() ? time : `${at.toLocaleDateString()} ${time}`;
}
