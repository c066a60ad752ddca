import { type ReactNode, useEffect, useRef, useState } from "react";
import { Field, OneOf } from "../../../ui/parts";
import type { LegTyped } from "./legs";

/** The figures of a leg, straight or curved, and what is wrong with them. */
export function LegFields(props: {
  leg: LegTyped;
  set: (leg: LegTyped) => void;
  send: () => Promise<string | null>;
  words: string;
  /** whether another leg is typed after it */
  goesOn?: boolean;
  /** which figure is waited for: the hand need not go there */
  waitsFor?: "bearing" | "length" | undefined;
  /** with each it is waited for again */
  clicks?: number;
  children?: ReactNode;
}) {
  const { leg, set, send, words, goesOn = false, waitsFor, clicks = 0, children } = props;
  const form = useRef<HTMLFormElement>(null);
  useEffect(() => {
    if (!waitsFor || clicks < 0) return;
    const field = form.current?.querySelectorAll("input")[waitsFor === "bearing" ? 0 : 1];
    field?.focus();
    field?.select(); // what stands there is typed over
  }, [waitsFor, clicks]);
  const [curve, setCurve] = useState(leg.radius !== "");
  const [error, setError] = useState<string | null>(null);
  const missing = [leg.bearing, leg.length, ...(curve ? [leg.radius] : [])].some((text) => text.trim() === "");
  return (
    <form
      ref={form}
      className="mt-1"
      onSubmit={(e) => {
        e.preventDefault();
        // The next leg begins with its bearing; what was corrected is typed over if it is still not right.
        if (goesOn) e.currentTarget.querySelector("input")?.focus();
        else if (document.activeElement instanceof HTMLInputElement) document.activeElement.select();
        setError(null);
        void send().then(setError);
      }}
    >
      <div className="flex items-end gap-2">
        <Field
          label={curve ? "bearing of its chord" : "bearing"}
          value={leg.bearing}
          onChange={(bearing) => set({ ...leg, bearing })}
          placeholder="e.g. N 36°15′ E"
        />
        <Field
          label={curve ? { chord: "chord", arc: "length along it", angle: "central angle" }[leg.gives] : "length"}
          value={leg.length}
          onChange={(length) => set({ ...leg, length })}
          placeholder={leg.gives === "angle" ? "e.g. 36°52′" : "e.g. 24.30 m"}
        />
        {curve && (
          <Field
            label="radius"
            value={leg.radius}
            onChange={(radius) => set({ ...leg, radius })}
            placeholder="e.g. 15 m"
          />
        )}
      </div>
      {curve && (
        <div className="mt-1.5 grid gap-1">
          <OneOf
            label="What is given beside it"
            value={leg.gives}
            of={[
              ["chord", "chord"],
              ["arc", "arc length"],
              ["angle", "angle"],
            ]}
            set={(gives) => set({ ...leg, gives })}
          />
          <OneOf
            label="It turns"
            value={leg.turns}
            of={[
              ["left", "to the left"],
              ["right", "to the right"],
            ]}
            set={(turns) => set({ ...leg, turns })}
          />
        </div>
      )}
      <div className="mt-1.5 flex items-center gap-1.5">
        <button type="submit" className="rounded border border-line bg-white px-2 py-0.5" disabled={missing}>
          {words}
        </button>
        <label className="flex items-center gap-1 text-quiet">
          <input
            type="checkbox"
            checked={curve}
            onChange={(e) => {
              setCurve(e.target.checked);
              if (!e.target.checked) set({ ...leg, radius: "", gives: "chord" });
            }}
          />
          a curve
        </label>
        {children}
      </div>
      {error && (
        <p role="alert" className="mt-1 text-rust">
          {error}
        </p>
      )}
    </form>
  );
}
