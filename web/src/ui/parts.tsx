import type { InputHTMLAttributes, ReactNode } from "react";

/** The head of a ledger: one large figure or phrase, one sentence, and the one next thing to do. */
export function Head({ title, children, next }: { title: string; children: ReactNode; next?: ReactNode }) {
  return (
    <header className="border-b border-line p-4">
      <h2 className="text-[23px] leading-7 font-bold">{title}</h2>
      <p className="mt-1 text-[14px] leading-5">{children}</p>
      {next}
    </header>
  );
}

export function NextThing({ children, onClick }: { children: ReactNode; onClick: () => void }) {
  return (
    <button
      type="button"
      className="mt-3 w-full rounded-lg border border-zest-edge bg-zest px-3 py-2.5 text-left font-semibold"
      onClick={onClick}
    >
      {children}
    </button>
  );
}

export function Plain({
  children,
  onClick,
  danger = false,
  pressed,
}: {
  children: ReactNode;
  onClick: () => void;
  danger?: boolean;
  /** for what is switched on and off */
  pressed?: boolean;
}) {
  return (
    <button
      type="button"
      className={`rounded border px-2 py-0.5 text-[13px] whitespace-nowrap ${pressed ? "border-ink bg-sheet font-semibold" : "border-line bg-white"} ${danger ? "text-rust" : ""}`}
      onClick={onClick}
      {...(pressed === undefined ? {} : { "aria-pressed": pressed })}
    >
      {children}
    </button>
  );
}

/** A small act in a row of the ledger. */
export function Link({ children, onClick }: { children: ReactNode; onClick: () => void }) {
  return (
    <button type="button" className="text-[13px] whitespace-nowrap text-quiet underline" onClick={onClick}>
      {children}
    </button>
  );
}

/** Feet, inches and their parts, or a length to a tenth: seen whole in a narrow field too. */
const LONG_FIGURE = /^[-\d'" /]{11,}$|^[-\d.]{6,} \w+$/;

/** A small labelled field. */
export function Field({
  label,
  value,
  onChange,
  ...rest
}: { label: string; value: string; onChange: (text: string) => void } & Omit<
  InputHTMLAttributes<HTMLInputElement>,
  "onChange" | "value" | "className"
>) {
  return (
    <label className="@container block min-w-0 flex-1 text-xs text-quiet">
      {label}
      <input
        className={`mt-0.5 h-7 w-full rounded border border-line bg-white px-1.5 py-1 text-[14px] text-ink ${LONG_FIGURE.test(value) ? "@max-[6rem]:text-[12px] @max-[6rem]:tracking-tight" : ""}`}
        autoComplete="off"
        spellCheck={false}
        value={value}
        onChange={(e) => onChange(e.target.value)}
        {...rest}
      />
    </label>
  );
}

/** One of a few ways, side by side. */
export function OneOf<T extends string>(props: {
  label: string;
  value: T;
  of: readonly (readonly [T, string])[];
  set: (value: T) => void;
}) {
  return (
    <fieldset className="flex gap-1" aria-label={props.label}>
      {props.of.map(([value, words]) => (
        <button
          key={value}
          type="button"
          aria-pressed={props.value === value}
          className={`flex-1 rounded border px-2 py-1 ${props.value === value ? "border-ink bg-sheet font-semibold" : "border-line"}`}
          onClick={() => props.set(value)}
        >
          {words}
        </button>
      ))}
    </fieldset>
  );
}

/** One of several by its words; of several things that differ none is chosen. */
export function Choose<T extends string>(props: {
  label: string;
  value: T | null;
  of: readonly (readonly [T, string])[];
  set: (value: T) => void;
}) {
  return (
    <label className="block min-w-0 text-xs text-quiet">
      {props.label}
      <select
        className="mt-0.5 h-7 w-full rounded border border-line bg-white px-1 text-[13px] text-ink"
        value={props.value ?? ""}
        onChange={(e) => props.set(e.target.value as T)}
      >
        {props.value === null && <option value="">several</option>}
        {props.of.map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}
