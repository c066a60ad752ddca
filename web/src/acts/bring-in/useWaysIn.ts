import { useEffect, useState } from "react";
import { goTo, useDesk } from "../../board/desk";
import { bringIn } from "./uploads";

/** Files may be dropped or pasted anywhere in a project. Returns whether one is held over the window just now. */
export function useWaysIn(): boolean {
  const [over, setOver] = useState(false);
  useEffect(() => {
    const take = (files: FileList | null | undefined) => {
      if (!files || files.length === 0) return false;
      if (useDesk.getState().step !== "bring-in") goTo("bring-in");
      bringIn(files);
      return true;
    };
    const holds = (e: DragEvent) => e.dataTransfer?.types.includes("Files") ?? false;
    const onOver = (e: DragEvent) => {
      if (!holds(e)) return;
      e.preventDefault();
      setOver(true);
    };
    const onLeave = (e: DragEvent) => {
      if (e.relatedTarget === null) setOver(false);
    };
    const onDrop = (e: DragEvent) => {
      setOver(false);
      if (!holds(e)) return;
      e.preventDefault();
      take(e.dataTransfer?.files);
    };
    const onPaste = (e: ClipboardEvent) => {
      if (take(e.clipboardData?.files)) e.preventDefault();
    };
    window.addEventListener("dragover", onOver);
    window.addEventListener("dragleave", onLeave);
    window.addEventListener("drop", onDrop);
    window.addEventListener("paste", onPaste);
    return () => {
      window.removeEventListener("dragover", onOver);
      window.removeEventListener("dragleave", onLeave);
      window.removeEventListener("drop", onDrop);
      window.removeEventListener("paste", onPaste);
    };
  }, []);
  return over;
}
