import { useState } from "react";
import { api, settled } from "../../api/client";
import { handOut, onMap, takePicture, worldText } from "../../board/taken";
import { projectId, say } from "../../store/project";
import { Plain } from "../../ui/parts";

/**
 * The picture with what is traced over it, as the board shows it, and where it lies: of a storey in the map, once two corners of the boundary
 * say where that is.
 */
export function MarkedUp({ name, isPlan }: { name: string; isPlan: boolean }) {
  const [isTaken, setTaken] = useState(false);
  const [told, setTold] = useState("");
  const take = async () => {
    setTaken(true);
    try {
      const { png, world, mmPerPixel } = await takePicture();
      const file = name.replace(/[^\p{L}\p{N}]+/gu, "-").toLowerCase();
      handOut(png, `${file}.png`);
      const path = { project: projectId() ?? "" };
      const lies = isPlan
        ? (await settled(api.GET("/api/projects/{project}/map-reference", { params: { path } }))).lies
        : null;
      handOut(new Blob([worldText(lies ? onMap(world, lies) : world)], { type: "text/plain" }), `${file}.pgw`);
      setTold(`${mmPerPixel.toFixed(2)} mm a pixel${lies ? `, in ${lies.reference}` : ""}.`);
    } catch (error) {
      say((error as Error).message);
    } finally {
      setTaken(false);
    }
  };
  return (
    <section className="border-b border-line p-4" aria-label="Marked-up picture">
      <h3 className="text-lg font-bold">Marked-up picture</h3>
      <p className="mt-1 text-[14px]">
        What the board shows, straightened pictures with all that is drawn over them, as PNG four times as fine as the
        screen, with its world file.
      </p>
      <p className="text-[13px] text-quiet">
        Not in it: what the board does not show. Go closer for a finer one. {told}
      </p>
      <div className="mt-2">
        <Plain onClick={() => void take()}>{isTaken ? "It is being taken…" : "Take the picture"}</Plain>
      </div>
    </section>
  );
}
