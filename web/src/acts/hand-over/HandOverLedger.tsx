import { useState } from "react";
import { useDesk } from "../../board/desk";
import { projectId, useProjectFields } from "../../store/project";
import { streetParts } from "../../store/street";
import { overSpan, plusMinus, unitWord } from "../../ui/measures";
import { count } from "../../ui/numbers";
import { Head, OneOf } from "../../ui/parts";
import { Card } from "./Card";
import { MarkedUp } from "./MarkedUp";
import { Quantities } from "./Quantities";
import { SheetLedger } from "./SheetLedger";
import { SheetsCard } from "./SheetsCard";
import { useSheets } from "./sheets";

export function HandOverLedger() {
  const storey = useDesk((s) => s.storey);
  const { rows, derived, fits } = useProjectFields("rows", "derived", "fits");
  const drawing = useDesk((s) => s.drawing);
  const side = useDesk((s) => s.side);
  const row = storey === null ? undefined : rows.storey.get(storey);
  const shapes = storey === null ? undefined : derived.get(storey);
  const pm = drawing === null ? undefined : fits.get(drawing)?.plusMinusMmPer10m;
  const open = useSheets((s) => s.sheet);
  const sheet = open === null ? undefined : rows.printSheet.get(open);
  if (sheet) return <SheetLedger sheet={sheet} />;
  if (side !== null) return <SideHandedOver side={side} />;
  if (storey === null || !row || !shapes) return <Head title="Hand over">Choose a storey or a side.</Head>;
  const walls = shapes.walls.size;
  const has = walls > 0;
  const openings = [...rows.opening.values()].filter((o) => rows.wall.get(o.wall)?.storey === storey).length;
  return (
    <>
      <Head title={`${row.name}, to hand over`}>
        {has
          ? `${count(walls, "wall")}, ${count(shapes.regions.size, "room")}, ${count(openings, "opening")}${drawing === null ? "." : pm == null ? ". The drawing is not trued up: sizes are a guess." : `, ${plusMinus(pm)}${unitWord()} over ${overSpan()}.`}`
          : "Nothing is traced on this storey yet."}
      </Head>
      <div className="min-h-0 flex-1 overflow-y-auto">
        <SheetsCard />
        <Drawing storey={storey} ready={has} />
        <Document storey={storey} ready={has} />
        <Card
          title="Archive"
          take="archive"
          href={`/api/projects/${projectId()}/archive.zip`}
          inside="The whole project as one ZIP: drawings byte for byte, picks, known lengths and fits, all that is traced and drawn, sheets, and the plan document. Brought in from the list of projects, here or elsewhere, it is the same project."
          outside="Not in it: the history of changes, who it is shared with."
          ready={true}
        />
        <Card
          title="The building, IFC4"
          take="IFC"
          href={`/api/projects/${projectId()}/building.ifc`}
          inside="All storeys with their rooms and areas (ISO 9836); walls with their openings, doors and windows in them, floors, roofs, stairs and furniture as solids; build-ups, numbers, what it was traced from, and where it lies on earth once two corners of the boundary say it. Things keep their global ids."
          outside="Not in it: figures, notes, what is only drawn."
          ready={has}
        />
        <Card
          title="The building, glTF"
          take="building"
          href={`/api/projects/${projectId()}/building.glb`}
          inside="All that stands on all storeys as closed bodies of true size with their finishes, named and by storey, in one file."
          outside="Not in it: pictures, names of rooms, what is only drawn."
          ready={has}
        />
        <Card
          title="Map, GeoJSON"
          take="GeoJSON"
          href={`/api/projects/${projectId()}/plan.geojson`}
          inside="Rooms with their names and areas, walls without their openings, and the site, of all storeys, in metres: of the map once two corners of the boundary say where it lies, of the plan until then."
          outside="Not in it: heights."
          ready={has}
        />
        <MarkedUp name={row.name} isPlan={true} />
        <Tables ready={has} />
        <Quantities ready={has} />
      </div>
    </>
  );
}

const STOREYS = [
  ["all", "All storeys"],
  ["one", "This one"],
] as const;
const LAYERS = [
  ["plain", "Plain"],
  ["iso13567", "ISO 13567"],
] as const;
const TABLES = [
  ["ods", "ODS"],
  ["xlsx", "XLSX"],
  ["zip", "CSV"],
] as const;

/** What is traced for scripts, and for another project: the whole building with its sheets, or this storey. */
function Document({ storey, ready }: { storey: string; ready: boolean }) {
  const [of, setOf] = useState<"one" | "all">("all");
  return (
    <Card
      title="Plan document"
      take="plan document"
      href={`/api/projects/${projectId()}/${of === "all" ? "" : `storeys/${storey}/`}plan.json`}
      inside="Walls, doors, rooms, floors, ceilings, roofs, stairs, objects and finishes as open JSON, of all storeys with print sheets and sides: for scripts, and to be dropped into another project, where it is the same."
      outside="Not in it: pictures, fits, axes and boundaries, what is drawn freely; of one storey no numbers."
      ready={ready}
    >
      <div className="mt-2">
        <OneOf label="Plan document of" value={of} of={STOREYS} set={setOf} />
      </div>
    </Card>
  );
}

/** Plans as a drawing: this storey's, or all of them beside each other. */
function Drawing({ storey, ready }: { storey: string; ready: boolean }) {
  const [of, setOf] = useState<"one" | "all">("one");
  const [layers, setLayers] = useState<"plain" | "iso13567">("plain");
  const path = of === "all" ? "building.dxf" : `storeys/${storey}/plan.dxf`;
  return (
    <Card
      title="DXF"
      take="DXF"
      href={`/api/projects/${projectId()}/${path}?layers=${layers}`}
      inside="Walls cut at their openings with arcs as arcs and a fill of their own layer, leaves and panes, stairs, railings, dividers, columns, axes, outlines of floors and roofs, boundaries, rooms with names and areas, levels, numbers, what is drawn freely, dimensions and notes, in the project’s own unit."
      outside="Not in it: the picture, known lengths; sides and sections have files of their own."
      ready={ready}
    >
      <div className="mt-2 space-y-1.5">
        <OneOf label="DXF of" value={of} of={STOREYS} set={setOf} />
        <OneOf label="Layers" value={layers} of={LAYERS} set={setLayers} />
      </div>
    </Card>
  );
}

/** All tables of the building, in the format that is wanted. */
function Tables({ ready }: { ready: boolean }) {
  const [format, setFormat] = useState<"ods" | "xlsx" | "zip">("ods");
  return (
    <Card
      title="Tables"
      take="building’s tables"
      href={`/api/projects/${projectId()}/tables.${format}`}
      inside="Rooms, doors and windows, walls, areas (ISO 9836), quantities, stairs, roofs and boundaries of the whole building, a sheet each, and what it rests on: drawings, known lengths and what is left over, figures beside what is traced; millimetres and square metres."
      outside="Not in it: places, shapes, what is only drawn."
      ready={ready}
    >
      <div className="mt-2">
        <OneOf label="Tables as" value={format} of={TABLES} set={setFormat} />
      </div>
    </Card>
  );
}

/** A side or a section as a drawing of its own. */
function SideHandedOver({ side }: { side: string }) {
  const { rows } = useProjectFields("rows");
  const row = rows.side.get(side);
  const isRow = streetParts(rows, side).length > 0;
  return (
    <>
      <Head title={`${row?.name ?? "A side"}, to hand over`}>
        {isRow
          ? "Sides in a row, joined at shared corners, as they are drawn here."
          : row?.fromX == null
            ? "It has no line on the plan yet: draw it there, under True up, Place."
            : row.cut
              ? "What is cut, and what is seen behind it, as it is drawn here."
              : "What is seen of the building from this side, as it is drawn here."}
      </Head>
      <SheetsCard />
      <Card
        title="DXF"
        take="DXF"
        href={`/api/projects/${projectId()}/sides/${side}/view.dxf`}
        inside="Its lines on layers for what is cut and what is seen, with what is drawn on it, dimensions and notes, x along its line and y the height, in the project’s own unit."
        outside="Not in it: the picture behind it, outlines and levels that were traced."
        ready={isRow || row?.fromX != null}
      />
      <MarkedUp name={row?.name ?? "side"} isPlan={false} />
    </>
  );
}
