/** ms within which loading the page again is not tried twice: what is still missing then is missing for another reason. */
const ONCE_MS = 30_000;
const AT = "plinth.renewed";

/**
 * A tab that was opened before the application was renewed asks for parts that are not there any more: it is loaded again, once.
 * What was not acknowledged yet waits in `unsent`.
 */
export function loadAgainWhenRenewed(target: EventTarget, storage: Storage, load: () => void): void {
  target.addEventListener("vite:preloadError", (event) => {
    if (Date.now() - Number(storage.getItem(AT) ?? 0) < ONCE_MS) return;
    event.preventDefault();
    storage.setItem(AT, String(Date.now()));
    load();
  });
}
