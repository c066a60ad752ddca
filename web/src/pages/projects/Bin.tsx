import { useState } from "react";
import type { Schemas } from "../../api/client";
import { count } from "../../ui/numbers";
import { Plain } from "../../ui/parts";
import { daysLeft, putBack, removeForGood } from "./keeping";

/** Projects that were thrown away, for as long as they can be put back. */
export function Bin({ projects, again }: { projects: readonly Schemas["ProjectCard"][]; again: () => void }) {
  const [asks, setAsks] = useState<string | null>(null);
  const [error, setError] = useState<string | null>(null);
  const doing = async (what: Promise<string | null>) => {
    setError(await what);
    setAsks(null);
    again();
  };
  return (
    <section className="mt-8" aria-label="Bin">
      <h2 className="text-lg font-bold">Bin</h2>
      <ul className="mt-1">
        {projects.map(({ id, name, binned }) => (
          <li key={id} className="flex items-center gap-3 border-t border-line py-2">
            <span className="min-w-0 flex-1 [overflow-wrap:anywhere]">
              {name}
              <span className="block text-[13px] text-quiet">
                goes for good in {count(daysLeft(binned ?? "", Date.now()), "day")}
              </span>
            </span>
            {asks === id ? (
              <>
                <span className="text-[13px]">With all its drawings and its history?</span>
                <Plain danger onClick={() => void doing(removeForGood(id))}>
                  Remove for good
                </Plain>
                <Plain onClick={() => setAsks(null)}>Keep it</Plain>
              </>
            ) : (
              <>
                <Plain onClick={() => void doing(putBack(id))}>Put back</Plain>
                <Plain onClick={() => setAsks(id)}>Remove now</Plain>
              </>
            )}
          </li>
        ))}
      </ul>
      {error && (
        <p role="alert" className="text-[13px] text-rust">
          {error}
        </p>
      )}
    </section>
  );
}
