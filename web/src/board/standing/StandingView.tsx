import { type PointerEvent as ReactPointerEvent, useCallback, useEffect, useRef, useState } from "react";
import { useProject } from "../../store/project";
import type { Kind } from "../../store/rows";
import { storeysInOrder } from "../../store/storeys";
import { useActs } from "../act";
import { NOTHING_SELECTED, setAct, useDesk } from "../desk";
import { useRepeats } from "../patterns";
import { images } from "../picture";
import { selectedWalls, selectWalls } from "../selection";
import { handOut } from "../taken";
import { type BodyKind, standingStoreys, useBodies } from "./bodies";
import { type Cut, Cutting, planeOf } from "./Cutting";
import { ahead, type Eye, type Place3, panned, turned, walked, whole, zoomed } from "./camera";
import { Measured } from "./Measured";
import { PlanUp } from "./PlanUp";
import { standingPictures } from "./pictures";
import { StandingScene } from "./scene";
import type { Taken } from "./taking";
import { Views, type ViewValues } from "./Views";
import { wearOf } from "./wear";

/** Eye height of who stands, and the nearest that one comes to a wall, metres; common practice, no source. */
const EYE_M = 1.6;
const BODY_M = 0.3;
const STEP_M = 0.4;
const DRAG_PX = 4;
/** It rests once nothing has moved for so long. */
const REST_MS = 160;
/** What an arrow key turns by, as a drag. */
const TURN_PX = 35;

/** What can be left out, and what goes with it. */
const LAYERS: readonly { name: string; kinds: readonly (BodyKind | "finishes")[] }[] = [
  { name: "roofs", kinds: ["roof", "dormer", "chimney"] },
  { name: "ceilings", kinds: ["ceiling"] },
  { name: "floors", kinds: ["floor", "finish"] },
  { name: "doors, windows", kinds: ["frame", "leaf", "pane"] },
  { name: "mouldings", kinds: ["swept"] },
  { name: "objects", kinds: ["object"] },
  { name: "finishes", kinds: ["finishes"] },
];

const ROWS: Record<BodyKind, Kind> = {
  wall: "wall",
  railing: "wall",
  column: "column",
  floor: "outline",
  finish: "outline",
  ceiling: "outline",
  stair: "stair",
  roof: "outline",
  dormer: "outline",
  chimney: "outline",
  swept: "sweep",
  frame: "opening",
  leaf: "opening",
  pane: "opening",
  object: "object",
};

/** Above the floor, mm: as plans are cut. */
const CUT_MM = 1200;

/** The building as it stands: turned by dragging, zoomed at the pointer, cut, and walked through. */
export default function StandingView() {
  const frame = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const scene = useRef<StandingScene | null>(null);
  const eye = useRef<Eye | null>(null);
  const asked = useRef(0);
  const bodies = useBodies();
  const rows = useProject((s) => s.rows.storey);
  const selected = useDesk((s) => s.selected);
  const group = useDesk((s) => s.group);
  const [without, setWithout] = useState<ReadonlySet<string>>(new Set());
  const [hidden, setHidden] = useState<ReadonlySet<string>>(new Set());
  const [cut, setCut] = useState<Cut>({ way: "none", level: CUT_MM, part: 0.5, degrees: 0 });
  const [isInside, setInside] = useState(false);
  const [withPictures, setPictures] = useState(true);
  const [withEvidence, setEvidence] = useState(false);
  const [measured, setMeasured] = useState<readonly Taken[]>([]);
  const finishes = useProject((s) => s.rows.finish);
  const repeats = useRepeats([...finishes.values()]);
  const measuring = useActs((s) => s.entries.find((e) => e.measures)?.act ?? null);
  const isMeasuring = useDesk((s) => s.act !== null && s.act === measuring);
  const planUp = useRef<SVGGElement>(null);
  const [lost, setLost] = useState(false);

  const rest = useRef(0);
  const drag = useRef<{ x: number; y: number; lastX: number; lastY: number; pans: boolean; moved: boolean } | null>(
    null,
  );
  const paint = useCallback((isMoving = false) => {
    if (asked.current !== 0) return;
    asked.current = requestAnimationFrame(() => {
      asked.current = 0;
      if (!scene.current || !eye.current) return;
      scene.current.render(eye.current, isMoving);
      planUp.current?.setAttribute("transform", `rotate(${(eye.current.turn * 180) / Math.PI})`);
    });
  }, []);
  const look = useCallback(
    (next: Eye) => {
      eye.current = next;
      paint(true);
      clearTimeout(rest.current);
      // A hand that holds it goes on; what is turned by keys or the wheel comes to rest by itself.
      if (drag.current === null) rest.current = window.setTimeout(() => paint(), REST_MS);
    },
    [paint],
  );
  const showAll = useCallback(() => {
    const bounds = scene.current?.bounds() ?? null;
    const node = canvas.current;
    if (!bounds || !node) return;
    setInside(false);
    look(whole(bounds.least, bounds.most, node.clientWidth / Math.max(1, node.clientHeight)));
  }, [look]);

  useEffect(() => {
    const node = canvas.current;
    const box = frame.current;
    if (!node || !box) return;
    try {
      scene.current = new StandingScene(node);
    } catch {
      setLost(true);
      return;
    }
    const resize = () => {
      scene.current?.resize(box.clientWidth, box.clientHeight);
      paint();
    };
    const watch = new ResizeObserver(resize);
    watch.observe(box);
    resize();
    return () => {
      watch.disconnect();
      cancelAnimationFrame(asked.current);
      clearTimeout(rest.current);
      asked.current = 0;
      scene.current?.dispose();
      scene.current = null;
    };
  }, [paint]);

  useEffect(() => {
    const s = scene.current;
    if (!s) return;
    s.put(bodies);
    const out = new Set(LAYERS.filter((l) => without.has(l.name)).flatMap((l) => l.kinds));
    // Doors stand open to who walks through them.
    if (isInside) out.add("leaf");
    s.show(new Set(standingStoreys().filter((id) => !hidden.has(id))), out);
    s.cut(planeOf(cut, s.bounds()));
    if (eye.current === null && bodies.size > 0) showAll();
    paint();
  }, [bodies, without, hidden, cut, isInside, paint, showAll]);

  useEffect(() => {
    const looks = new Map(
      [...finishes.values()].map((f) => [f.id, { colour: f.colour, repeat: repeats.get(f.id) ?? null }]),
    );
    if (scene.current?.look(looks)) paint();
  }, [finishes, repeats, paint]);

  useEffect(() => {
    if (bodies.size === 0) return;
    const seen = standingStoreys().filter((id) => withEvidence && !hidden.has(id));
    const told = seen.map(wearOf);
    scene.current?.tell({ figure: told.flatMap((t) => t.figure), hand: told.flatMap((t) => t.hand) });
    paint();
  }, [bodies, withEvidence, hidden, paint]);

  useEffect(() => {
    if (!isMeasuring) setMeasured([]);
  }, [isMeasuring]);

  useEffect(() => {
    scene.current?.measure(measured.map((m) => m.at));
    paint();
  }, [measured, paint]);

  useEffect(() => {
    if (bodies.size === 0) return;
    scene.current?.choose(new Set([...(selected ? [selected.id] : []), ...group]));
    paint();
  }, [selected, group, bodies, paint]);

  useEffect(() => {
    const s = scene.current;
    if (!s || bodies.size === 0) return;
    let timer = 0;
    const again = () => {
      timer = 0;
      s.stand(withPictures ? standingPictures(standingStoreys().filter((id) => !hidden.has(id))) : []);
      paint();
    };
    again();
    // Tiles arrive one by one: they are put together once for all that came in between.
    const stop = images.onArrival(() => {
      if (timer === 0) timer = window.setTimeout(again, 200);
    });
    return () => {
      stop();
      clearTimeout(timer);
    };
  }, [withPictures, hidden, bodies, paint]);

  const at = (e: { clientX: number; clientY: number }): readonly [number, number] => {
    const box = canvas.current?.getBoundingClientRect();
    if (!box) return [0, 0];
    return [((e.clientX - box.left) / box.width) * 2 - 1, 1 - ((e.clientY - box.top) / box.height) * 2];
  };
  const onPointerDown = (e: ReactPointerEvent) => {
    drag.current = {
      x: e.clientX,
      y: e.clientY,
      lastX: e.clientX,
      lastY: e.clientY,
      pans: e.button !== 0 || e.shiftKey,
      moved: false,
    };
    e.currentTarget.setPointerCapture(e.pointerId);
  };
  const onPointerMove = (e: ReactPointerEvent) => {
    const held = drag.current;
    if (!held || !eye.current) return;
    if (Math.hypot(e.clientX - held.x, e.clientY - held.y) > DRAG_PX) held.moved = true;
    if (!held.moved) return;
    const [dx, dy] = [e.clientX - held.lastX, e.clientY - held.lastY];
    [held.lastX, held.lastY] = [e.clientX, e.clientY];
    const pans = held.pans && eye.current.distance > 0;
    look(pans ? panned(eye.current, dx, dy, canvas.current?.clientHeight ?? 1) : turned(eye.current, dx, dy));
  };
  const onPointerUp = (e: ReactPointerEvent) => {
    const held = drag.current;
    drag.current = null;
    if (held?.moved) paint();
    if (!held || held.moved) return;
    if (isMeasuring) return measureTo(...at(e));
    const hit = scene.current?.hit(...at(e)) ?? null;
    if (!hit) return useDesk.setState(NOTHING_SELECTED);
    const type = ROWS[hit.kind];
    // What is selected is worked on where it stands.
    useDesk.setState({ storey: hit.storey, side: null });
    if (type !== "wall") return useDesk.setState({ selected: { type, id: hit.id }, group: [], things: [] });
    const before = e.shiftKey ? selectedWalls() : [];
    selectWalls(before.includes(hit.id) ? before.filter((w) => w !== hit.id) : [...before, hit.id]);
  };
  const measureTo = (x: number, y: number) => {
    const s = scene.current;
    const found = s?.take(x, y);
    if (!s || !found) return;
    setMeasured((before) => [...(before.length === 1 ? before : []), { ...found, at: s.inModel(found.at) }]);
  };
  const walk = useCallback(
    (forward: number, aside: number) => {
      const now = eye.current;
      if (!now || !scene.current) return;
      const next = walked(now, forward, aside);
      const way: Place3 = [next.at[0] - now.at[0], next.at[1] - now.at[1], 0];
      if (scene.current.clear(now.at, way) > Math.hypot(way[0], way[1]) + BODY_M) look(next);
    },
    [look],
  );
  useEffect(() => {
    const node = canvas.current;
    if (!node) return;
    const onWheel = (e: WheelEvent) => {
      e.preventDefault();
      if (!eye.current || !scene.current) return;
      if (eye.current.distance === 0) return walk(-e.deltaY * 0.004, 0);
      const [x, y] = at(e);
      const hit = scene.current.hit(x, y);
      const about = hit?.at ?? scene.current.onLevel(x, y, eye.current.at[2]) ?? eye.current.at;
      look(zoomed(eye.current, Math.exp(e.deltaY * (e.ctrlKey ? 0.01 : 0.0016)), about));
    };
    node.addEventListener("wheel", onWheel, { passive: false });
    return () => node.removeEventListener("wheel", onWheel);
  });

  const onKey = (e: React.KeyboardEvent) => {
    const now = eye.current;
    if (!now || e.ctrlKey || e.altKey || e.metaKey) return;
    // By keys it is measured to what lies in the middle.
    const measures = isMeasuring && e.key === " " ? () => measureTo(0, 0) : null;
    const moves = now.distance === 0 ? insideKey(e.key, e.shiftKey, now) : outsideKey(e.key, now);
    const move = measures ?? moves;
    if (!move) return;
    e.preventDefault();
    e.stopPropagation();
    move();
  };
  const insideKey = (key: string, aside: boolean, now: Eye): (() => void) | null => {
    if (key === "ArrowUp") return () => walk(STEP_M, 0);
    if (key === "ArrowDown") return () => walk(-STEP_M, 0);
    const way = key === "ArrowLeft" ? -1 : key === "ArrowRight" ? 1 : 0;
    if (way === 0) return null;
    return () => (aside ? walk(0, way * STEP_M) : look(turned(now, -way * TURN_PX, 0)));
  };
  const outsideKey = (key: string, now: Eye): (() => void) | null => {
    const turns: Record<string, readonly [number, number]> = {
      ArrowUp: [0, -TURN_PX],
      ArrowDown: [0, TURN_PX],
      ArrowLeft: [-TURN_PX, 0],
      ArrowRight: [TURN_PX, 0],
    };
    const turn = turns[key];
    if (turn) return () => look(turned(now, ...turn));
    const nearer = key === "+" ? 0.8 : key === "-" ? 1.25 : null;
    return nearer === null ? null : () => look(zoomed(now, nearer, now.at));
  };

  /** Into the middle of what is looked at, on the floor of the storey at hand. */
  const standInside = () => {
    const s = scene.current;
    const now = eye.current;
    if (!s || !now) return;
    if (now.distance === 0) return showAll();
    const { storey } = useDesk.getState();
    const level = (rows.get(storey ?? standingStoreys()[0] ?? "")?.elevation ?? 0) / 1000 + EYE_M;
    const shapes = useProject.getState().derived.get(storey ?? standingStoreys()[0] ?? "");
    // In the largest room, well inside it, which is where its label stands.
    const rooms = [...(shapes?.regions.values() ?? [])].sort((a, b) => b.netAreaM2 - a.netAreaM2);
    const [x = 0, y = 0] = rooms[0]?.label ?? s.inModel(now.at);
    const [sx, sy] = s.inScene([x, y, 0]);
    setInside(true);
    // The longest way through the room.
    const at: Place3 = [sx, sy, level];
    const ways = Array.from({ length: 16 }, (_, i) => (i * Math.PI) / 8);
    const free = (turn: number) => s.clear(at, ahead({ turn, tilt: 0 }));
    const turn = ways.reduce((best, way) => (free(way) > free(best) + 0.01 ? way : best), 0);
    look({ at, distance: 0, turn, tilt: 0.08 });
  };
  const keep = () => {
    const node = canvas.current;
    if (!node || !scene.current || !eye.current) return;
    scene.current.render(eye.current);
    node.toBlob((png) => png && handOut(png, "3d-view.png"));
  };

  const viewNow = (): ViewValues | null => {
    const s = scene.current;
    const now = eye.current;
    if (!s || !now) return null;
    const [x, y, z] = s.inModel(now.at);
    const left = [...without, ...hidden].join(";");
    const cutAt = cut.way === "level" ? cut.level : cut.part;
    const [turn, tilt] = [(now.turn * 180) / Math.PI, (now.tilt * 180) / Math.PI];
    return {
      x,
      y,
      z,
      distance: now.distance * 1000,
      turn,
      tilt,
      cut: cut.way,
      cutAt,
      cutTurn: cut.degrees,
      without: left,
    };
  };
  const goTo = (to: ViewValues) => {
    const s = scene.current;
    if (!s) return;
    const left = new Set(to.without.split(";").filter((name) => name !== ""));
    setWithout(new Set(LAYERS.map((l) => l.name).filter((name) => left.has(name))));
    setHidden(new Set(standingStoreys().filter((id) => left.has(id))));
    const at = to.cut === "level" ? { level: to.cutAt } : { part: to.cutAt };
    setCut({ ...cut, way: to.cut, degrees: to.cutTurn, ...at });
    setInside(to.distance === 0);
    const [turn, tilt] = [(to.turn * Math.PI) / 180, (to.tilt * Math.PI) / 180];
    look({ at: s.inScene([to.x, to.y, to.z]), distance: to.distance / 1000, turn, tilt });
  };

  const toggled = (set: ReadonlySet<string>, name: string) => {
    const next = new Set(set);
    if (!next.delete(name)) next.add(name);
    return next;
  };
  const bounds = scene.current?.bounds() ?? null;
  const refused = [...bodies.values()].flatMap((b) => b.refused);
  const box = "flex h-8 items-center gap-2 rounded-lg border border-line bg-sheet px-2.5 text-[13px]";
  const storeys = storeysInOrder().filter((s) => s.alternativeOf === null);
  return (
    <div className="absolute inset-0 z-20 bg-board" ref={frame} data-testid="standing">
      {/* biome-ignore lint/a11y/noInteractiveElementToNoninteractiveRole: it is turned and walked through by keys */}
      <canvas
        ref={canvas}
        tabIndex={0}
        className="absolute inset-0 h-full w-full cursor-grab touch-none outline-offset-[-3px]"
        aria-label="The building as it stands. Arrow keys turn it, plus and minus go nearer and further; inside they walk."
        role="application"
        onPointerDown={onPointerDown}
        onPointerMove={onPointerMove}
        onPointerUp={onPointerUp}
        onContextMenu={(e) => e.preventDefault()}
        onKeyDown={onKey}
      />
      {lost && (
        <p className="absolute inset-x-0 top-1/3 text-center text-rust">
          This browser draws nothing in space (WebGL is off). The plan is there all the same.
        </p>
      )}
      <PlanUp arrow={planUp} />
      {isMeasuring && <Measured points={measured} />}
      {refused.length > 0 && !isMeasuring && (
        <ul className="absolute left-3 top-3 max-w-md rounded-lg border border-rust bg-sheet px-3 py-2 text-[13px] text-rust">
          {refused.map((r) => (
            <li key={r.id}>{r.message}</li>
          ))}
        </ul>
      )}
      <div className="pointer-events-none absolute bottom-3 left-3 right-3 flex flex-wrap gap-1.5 [&>*]:pointer-events-auto">
        <fieldset className={box} aria-label="Storeys that are seen">
          {storeys.map((s) => (
            <Tick key={s.id} name={s.name} on={!hidden.has(s.id)} set={() => setHidden(toggled(hidden, s.id))} />
          ))}
        </fieldset>
        <fieldset className={box} aria-label="What is seen">
          {LAYERS.map(({ name }) => (
            <Tick key={name} name={name} on={!without.has(name)} set={() => setWithout(toggled(without, name))} />
          ))}
          <Tick name="pictures" on={withPictures} set={() => setPictures(!withPictures)} />
          <Tick name="evidence" on={withEvidence} set={() => setEvidence(!withEvidence)} />
        </fieldset>
        <Cutting
          cut={cut}
          bounds={bounds}
          level={() => (rows.get(useDesk.getState().storey ?? "")?.elevation ?? 0) + CUT_MM}
          className={box}
          set={setCut}
        />
        <button type="button" className={box} aria-pressed={isInside} onClick={standInside}>
          {isInside ? "step outside" : "stand inside"}
        </button>
        <button
          type="button"
          className={`${box} ${isMeasuring ? "font-semibold" : ""}`}
          aria-pressed={isMeasuring}
          onClick={() => setAct(isMeasuring ? null : measuring, "standing")}
        >
          measure
        </button>
        <button type="button" className={box} onClick={showAll}>
          all of it
        </button>
        <button type="button" className={box} onClick={keep}>
          PNG
        </button>
        <Views now={viewNow} go={goTo} />
      </div>
    </div>
  );
}

function Tick({ name, on, set }: { name: string; on: boolean; set: () => void }) {
  return (
    <label className="flex items-center gap-1">
      <input type="checkbox" checked={on} onChange={set} />
      {name}
    </label>
  );
}
