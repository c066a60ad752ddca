import { useDesk } from "../../board/desk";
import { change } from "../../store/project";

type Removed =
  | "figure"
  | "note"
  | "room"
  | "divider"
  | "column"
  | "opening"
  | "outline"
  | "object"
  | "surface"
  | "stair"
  | "drawnLine"
  | "dimension"
  | "sweep"
  | "enclosure";

/** Removes one thing that was selected, by its own title. */
export function removeRow(type: Removed, id: string, title = `Remove a ${type}`): void {
  useDesk.setState({ selected: null });
  void change(title, [{ do: "remove", type, id }]);
}
