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

/** What is told of a storey apart: what is built, and what stands in its openings and rooms. */
const PARTS = ["bodies", "fills"] as const;

const toldOf = (storey: string, part: (typeof PARTS)[number]): Promise<Bodies> =>
  settled(api.GET(`/api/projects/{project}/storeys/{id}/${part}`, { params: { path: inProject(storey) } }));

/** What was asked for before anybody could draw it. */
const ahead = new Map<string, Promise<Bodies>>();

/** Asks for what is built while what draws it is still on its way. */
export function askAhead(): void {
  for (const storey of standingStoreys()) {
    const key = `${storey} bodies`;
    if (ahead.has(key)) continue;
    const told = toldOf(storey, "bodies");
    ahead.set(key, told);
    // Who draws it asks again.
    told.catch(() => ahead.delete(key));
  }
}

/** Nothing has changed for so long: what stands is worked out before anybody asks for it. */
const PAUSE_MS = 2000;

/** While nobody is at work the server works out what stands, and keeps it; nothing of it is sent. */
export function useReadiness(isWanted: boolean): void {
  const revision = useProject((s) => s.revision);
  useEffect(() => {
    if (!isWanted || revision < 0) return;
    const timer = setTimeout(async () => {
      for (const part of PARTS) {
        for (const id of standingStoreys()) {
          const path = inProject(id);
          await fetch(`/api/projects/${path.project}/storeys/${path.id}/${part}`, { method: "HEAD" }).catch(() => {});
        }
      }
    }, PAUSE_MS);
    return () => clearTimeout(timer);
  }, [isWanted, revision]);
}

/**
 * What stands on each storey, asked anew once something has been saved; the same objects while nothing differs. By storey and part: what
 * is built comes first, so that it is seen before the rest is there.
 */
export function useBodies(): ReadonlyMap<string, Bodies> {
  const revision = useProject((s) => s.revision);
  const isFirst = useRef(true);
  const [bodies, setBodies] = useState<ReadonlyMap<string, Bodies>>(new Map());
  useEffect(() => {
    let isWanted = revision >= 0;
    const ask = async () => {
      for (const part of PARTS) {
        for (const storey of standingStoreys()) {
          const key = `${storey} ${part}`;
          const told = await (ahead.get(key) ?? toldOf(storey, part));
          ahead.delete(key);
          if (!isWanted) return;
          setBodies((before) => (before.get(key)?.version === told.version ? before : new Map(before).set(key, told)));
        }
      }
      const there = new Set(standingStoreys());
      setBodies((before) =>
        [...before.values()].every((b) => there.has(b.storey))
          ? before
          : new Map([...before].filter(([, b]) => there.has(b.storey))),
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
