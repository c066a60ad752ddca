import { useEffect, useState } from "react";
import { others } from "../../store/presence";
import { useProject } from "../../store/project";
import { initials } from "../../ui/initials";

/** ms that what somebody else did is told */
const TOLD_MS = 6000;
const MOST = 3;

/** Who else has the project open, and where; and what they did last, for a while. */
export function Others({ account }: { account: string }) {
  const present = others(useProject((s) => s.present));
  const rows = useProject((s) => s.rows);
  const place = (id: string | null) =>
    rows.storey.get(id ?? "")?.name ?? rows.side.get(id ?? "")?.name ?? "nowhere in particular";
  return (
    <>
      <LastDone account={account} />
      {present.length > 0 && (
        <ul className="flex -space-x-1.5" aria-label="Also here">
          {present.slice(0, MOST).map((p) => (
            <li
              key={p.page}
              title={`${p.name}, on ${place(p.place)}`}
              className="flex size-7 items-center justify-center rounded-full border-2 border-stone bg-teal text-[11px] font-semibold text-white"
            >
              <span aria-hidden="true">{initials(p.name)}</span>
              <span className="sr-only">
                {p.name}, on {place(p.place)}
              </span>
            </li>
          ))}
          {present.length > MOST && <li className="pl-2.5 text-[13px] text-quiet">+{present.length - MOST}</li>}
        </ul>
      )}
    </>
  );
}

function LastDone({ account }: { account: string }) {
  const [last] = useProject((s) => s.news).filter((n) => n.account !== account);
  const [old, setOld] = useState<string | null>(null);
  useEffect(() => {
    if (!last) return;
    const timer = setTimeout(() => setOld(last.change), TOLD_MS);
    return () => clearTimeout(timer);
  }, [last]);
  return (
    <span className="pointer-events-none fixed top-[76px] left-1/2 z-20 -translate-x-1/2" aria-live="polite">
      {last && last.change !== old && (
        <span
          className="block max-w-96 truncate rounded-full bg-ink px-3 py-1 text-[13px] text-white"
          data-testid="news"
        >
          {last.name}: {last.title}
        </span>
      )}
    </span>
  );
}
