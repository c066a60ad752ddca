import { useState } from "react";
import { useDesk } from "../../../board/desk";
import { useProject } from "../../../store/project";
import { area } from "../../../ui/measures";
import { count, listed } from "../../../ui/numbers";
import { Link, Plain } from "../../../ui/parts";
import { Corrected, ReadSection, Strip } from "../../Read";
import { refuse, useReadings } from "../../searches";
import { listRooms, nameRooms, roomsToName, roomsUnclosed, titled } from "./names";

/** Names that were read in rooms that have none yet, each with the area written beside it. */
export function NamesRead() {
  const drawing = useDesk((s) => s.drawing);
  return drawing === null ? null : <Of drawing={drawing} />;
}

function Of({ drawing }: { drawing: string }) {
  const told = useReadings(drawing);
  // Which rooms have no name follows from both.
  useProject((s) => s.derived);
  useProject((s) => s.rows.room);
  const [corrected, setCorrected] = useState<Record<string, string>>({});
  const rooms = (told ? roomsToName(told.rooms) : []).map((r) => ({ ...r, name: corrected[r.id] ?? titled(r.name) }));
  const unclosed = told ? roomsUnclosed(told.rooms) : [];
  const withAreas = told?.rooms.filter((r) => r.areaM2 !== null) ?? [];
  return (
    <ReadSection
      label="Names read"
      drawing={drawing}
      told={told}
      read="Read the drawing’s names"
      says={`${count(rooms.length, "name")} to take`}
    >
      <div className="mt-2 flex flex-wrap gap-1.5">
        {rooms.length > 1 && <Plain onClick={() => void nameRooms(rooms)}>Take all names</Plain>}
        {withAreas.length > 0 && (
          <Plain onClick={() => void listRooms(withAreas)}>
            {`List ${count(withAreas.length, "area")} in the rooms table`}
          </Plain>
        )}
      </div>
      {unclosed.length > 0 && (
        <p className="mt-2">
          {listed(unclosed.map((r) => titled(r.name)))} {unclosed.length === 1 ? "is" : "are"} not closed off yet.{" "}
          <Link onClick={() => void nameRooms(unclosed.map((r) => ({ ...r, name: titled(r.name) })))}>
            Name them: where they are open is shown
          </Link>
        </p>
      )}
      <ul className="mt-2">
        {rooms.map((r) => (
          <li key={r.id} className="flex items-center gap-2 border-t border-line py-1">
            <Strip box={r.box} upright={false} words={r.name} />
            <span className="min-w-0 flex-1">
              <Corrected
                label={`Name, read ${r.name}`}
                text={r.name}
                set={(text) => setCorrected((all) => ({ ...all, [r.id]: text }))}
              />
              {r.areaM2 !== null && <span className="block px-1 text-quiet">{area(r.areaM2)} as written</span>}
            </span>
            <span className="flex flex-col gap-0.5">
              <Link onClick={() => void nameRooms([r])}>take</Link>
              <Link onClick={() => void refuse("readings", drawing, [r.id])}>refuse</Link>
            </span>
          </li>
        ))}
      </ul>
    </ReadSection>
  );
}
