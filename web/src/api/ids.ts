let lastTime = 0;
let count = 0;

/** A UUID of version 7 (RFC 9562): time first, then a count within the millisecond, so that ids made later sort later. */
export function newId(now = Date.now()): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  count = now === lastTime ? count + 1 : 0;
  lastTime = now;
  for (let i = 0; i < 6; i++) {
    bytes[i] = Math.floor(now / 2 ** (8 * (5 - i))) % 256;
  }
  bytes[6] = 0x70 | ((count >> 8) & 0x0f);
  bytes[7] = count & 0xff;
  bytes[8] = 0x80 | ((bytes[8] ?? 0) & 0x3f);
  const hex = [...bytes].map((b) => b.toString(16).padStart(2, "0")).join("");
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`;
}
