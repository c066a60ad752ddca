import type { ReactNode } from "react";
import { type DeskState, useDesk } from "../board/desk";
import { toggleWall } from "../board/selection";

/** A row of the ledger that selects the thing it tells of; with Shift a wall is added to those that are, as on the board. */
export function SelectRow(props: {
  type: NonNullable<DeskState["selected"]>["type"];
  id: string;
  slim?: boolean;
  children: ReactNode;
}) {
  const { type, id, slim = false, children } = props;
  const pressed = useDesk((s) => (s.group.length > 0 ? s.group.includes(id) : s.selected?.id === id));
  return (
    <button
      type="button"
      aria-pressed={pressed}
      className={`flex w-full items-baseline justify-between gap-2 border-b border-line px-4 text-left ${slim ? "py-1.5" : "py-2"} ${pressed ? "bg-white" : ""}`}
      onClick={(e) =>
        type === "wall" && e.shiftKey
          ? toggleWall(id)
          : useDesk.setState({ selected: { type, id }, group: [], things: [] })
      }
    >
      {children}
    </button>
  );
}
