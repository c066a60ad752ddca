import { useState } from "react";
import { api, type Refused, settled } from "../../api/client";
import { newId } from "../../api/ids";

/** Where a real meter has its lens and its button, this simulated one has a distance to set and a button. */
export function MeterPage() {
  const [metres, setMetres] = useState("3.482");
  const [sent, setSent] = useState<{ id: string; text: string; error: boolean }[]>([]);
  const send = async () => {
    const id = newId();
    const text = Number.parseFloat(metres.replace(",", "."));
    // A meter's last digit is never quite still.
    const reading = (text + (Math.random() - 0.5) * 0.002).toFixed(3);
    try {
      await settled(api.POST("/api/meter", { body: { id, text: reading } }));
      setSent((old) => [{ id, text: `${reading} m sent`, error: false }, ...old].slice(0, 6));
    } catch (refused) {
      setSent((old) => [{ id, text: (refused as Refused).message, error: true }, ...old].slice(0, 6));
    }
  };
  return (
    <main className="mx-auto flex h-full max-w-sm flex-col justify-center p-6">
      <h1 className="text-xl font-bold">Simulated distance meter</h1>
      <p className="mt-1 text-quiet">
        Sends what it reads to the figure that waits for one: pick both ends of a length, then send.
      </p>
      <form
        className="mt-4 rounded-xl border-2 border-ink bg-sheet p-5"
        onSubmit={(e) => {
          e.preventDefault();
          void send();
        }}
      >
        <label className="block text-quiet">
          distance ahead, m
          <input
            className="mt-1 w-full rounded border border-line bg-white px-3 py-2 text-4xl font-bold text-ink"
            inputMode="decimal"
            value={metres}
            onChange={(e) => setMetres(e.target.value)}
          />
        </label>
        <button
          type="submit"
          className="mt-4 w-full rounded-lg border border-zest-edge bg-zest px-3 py-3 text-lg font-semibold"
          disabled={!(Number.parseFloat(metres.replace(",", ".")) > 0)}
        >
          Measure and send
        </button>
      </form>
      <ul className="mt-3 h-32" aria-live="polite">
        {sent.map((s) => (
          <li key={s.id} className={s.error ? "text-rust" : "text-quiet"}>
            {s.text}
          </li>
        ))}
      </ul>
      <a className="underline" href="#/">
        All projects
      </a>
    </main>
  );
}
