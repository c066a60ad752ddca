import { type ReactNode, useState } from "react";
import { grouped } from "../../ui/numbers";
import { Link } from "../../ui/parts";

/** Rows of a kind beyond this many are told by their number until they are asked for. */
const MOST_ROWS = 60;

export function Some<T>({
  of,
  words,
  children,
}: {
  of: readonly T[];
  words: string;
  children: (thing: T) => ReactNode;
}) {
  const [all, setAll] = useState(false);
  const shown = all || of.length <= MOST_ROWS ? of : of.slice(0, MOST_ROWS);
  return (
    <>
      {shown.map(children)}
      {shown.length < of.length && (
        <p className="border-b border-line px-4 py-2">
          <Link onClick={() => setAll(true)}>
            all {grouped(of.length)} {words}
          </Link>
        </p>
      )}
    </>
  );
}
