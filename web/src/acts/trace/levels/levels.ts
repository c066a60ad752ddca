import { newId } from "../../../api/ids";
import { useDesk } from "../../../board/desk";
import { picksNow } from "../../../board/picking";
import { projectUnit } from "../../../store/lengths";
import type { LevelKind } from "../../../store/rows";
import { addPick, sendStatement } from "../../statements";

/** `sill`, `eaves +5.49 m`: what lies there, and its height where that is known. */
export function levelOf(text: string): { name: string; kind: LevelKind; height: string } {
  const [, words = "", figure = ""] =
    /^(.*?)\s*([±+−-]?\s*\d[\d\s.,'"’”½¼¾/-]*(?:mm|cm|m|ft|in)?)?$/u.exec(text.trim()) ?? [];
  const name = words.trim();
  const plain = name.toLowerCase();
  const kind = (["sill", "head", "eaves", "ridge"] as const).find((k) => plain.includes(k));
  return {
    name,
    kind: kind ?? (plain.includes("floor") ? "finished floor" : plain.includes("ground") ? "ground" : "other"),
    height: figure
      .replace(/^[±+]\s*/, "")
      .replace(/^−\s*/, "-")
      .trim(),
  };
}

/** Enter at a level that was picked. */
export async function stateLevel(text: string): Promise<void> {
  const { drawing } = useDesk.getState();
  const [p] = picksNow();
  if (drawing === null || !p) return;
  const level = levelOf(text);
  if (level.name === "" && level.height === "") {
    return useDesk.setState({ slipError: "Say what lies here: finished floor 0, sill, head, eaves, ridge." });
  }
  const id = newId();
  await sendStatement(
    "Level mark",
    [
      addPick(id, drawing, p),
      {
        do: "add",
        type: "levelMark",
        id: newId(),
        values: {
          drawing,
          pick: id,
          kind: level.kind,
          name: level.name === "" ? "level" : level.name,
          text: level.height,
          unit: projectUnit(),
        },
      },
    ],
    text,
  );
}
