import { useEffect, useRef, useState } from "react";
import { api, type Schemas, settled } from "../../api/client";
import { inProject, useProject } from "../../store/project";
import { storeysInOrder } from "../../store/storeys";

export type Bodies = Schemas["Bodies"];
export type BodyKind = Schemas["BodyKind"];

/** Of more edits in one go only the last is followed. */
const REST_MS = 250;

/** The storeys that stand: alternatives of others do not. */
export function standingStoreys(): readonly string[] {
  return storeysInOrder()
    .filter((s) => s.alternativeOf === null)
    .map((s) => s.id);
}

/** What stands on each storey, asked anew once something has been saved; the same object while nothing differs. */
export function useBodies(): ReadonlyMap<string, Bodies> {
  const revision = useProject((s) => s.revision);
  const isFirst = useRef(true);
  const [bodies, setBodies] = useState<ReadonlyMap<string, Bodies>>(new Map());
  useEffect(() => {
    let isWanted = revision >= 0;
    const ask = async () => {
      for (const storey of standingStoreys()) {
        const path = inProject(storey);
        const told = await settled(api.GET("/api/projects/{project}/storeys/{id}/bodies", { params: { path } }));
        if (!isWanted) return;
        setBodies((before) =>
          before.get(storey)?.version === told.version ? before : new Map(before).set(storey, told),
        );
      }
      const there = new Set(standingStoreys());
      setBodies((before) =>
        [...before.keys()].every((s) => there.has(s)) ? before : new Map([...before].filter(([s]) => there.has(s))),
      );
    };
    const timer = setTimeout(() => void ask().catch(() => {}), isFirst.current ? 0 : REST_MS);
    isFirst.current = false;
    return () => {
      isWanted = false;
      clearTimeout(timer);
    };
  }, [revision]);
  return bodies;
}
