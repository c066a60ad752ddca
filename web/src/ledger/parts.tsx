import type { ReactNode } from "react";

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
}: {
  children: ReactNode;
  onClick: () => void;
  danger?: boolean;
}) {
  return (
    <button
      type="button"
      className={`rounded border border-line bg-white px-2 py-0.5 text-[13px] whitespace-nowrap ${danger ? "text-rust" : ""}`}
      onClick={onClick}
    >
      {children}
    </button>
  );
}
