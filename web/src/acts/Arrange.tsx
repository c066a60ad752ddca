import { useState } from "react";
import { useDrafted } from "../board/desk";
import { twoLengths } from "../store/lengths";
import { say } from "../store/project";
import { typedAs } from "../ui/measures";
import { Plain } from "../ui/parts";
import { Typed } from "../ui/Typed";
import { arranged, askPlaces, middleOf, type Thing } from "./arranging";

/** What is done alike with all that was drawn freely: moved, turned, mirrored, repeated; by figures or by two places. */
export function Arrange({ things }: { things: readonly Thing[] }) {
  const asked = useDrafted("arranged");
  const [copies, setCopies] = useState(0);
  // Once it is done, fields say nothing of it any more.
  const [times, setTimes] = useState(0);
  const done = async (title: string, how: Parameters<typeof arranged>[2]) => {
    await arranged(title, things, { ...(copies > 0 ? { copies } : {}), ...how });
    setTimes(times + 1);
  };
  const shift = async (text: string) => {
    try {
      const [x, y] = await twoLengths(text, "yes");
      await done(copies > 0 ? "Repeat" : "Move", { by: [x, /\S\s+\S|×|x/.test(text.trim()) ? y : 0] });
    } catch (error) {
      say((error as Error).message);
    }
  };
  const [x, y] = middleOf(things);
  const mirror = (title: string, through: readonly [number, number]) =>
    void done(title, {
      mirror: [
        [x, y],
        [x + through[0], y + through[1]],
      ],
      // Mirrored twice it lies where it was.
      ...(copies > 0 ? { copies: 1 } : {}),
    });
  return (
    <fieldset className="mt-2 border-t border-line pt-2" aria-label="Arrange">
      <div className="grid grid-cols-3 gap-2">
        <Typed
          key={`by ${times}`}
          label="move by x y"
          value={`${typedAs(0)} ${typedAs(0)}`}
          set={(text) => void shift(text)}
        />
        <Typed
          key={`turn ${times}`}
          label="turn by °"
          value="0"
          set={(text) => {
            const degrees = Number(text.replace("°", "").replace(",", "."));
            if (Number.isNaN(degrees)) return say(`“${text}” is no angle: write degrees, such as 45.`);
            void done("Turn", { turn: degrees, about: [x, y] });
          }}
        />
        <Typed
          label="copies"
          value={copies === 0 ? "none" : String(copies)}
          set={(text) => {
            const n = text.trim() === "none" ? 0 : Number(text);
            if (!Number.isInteger(n) || n < 0 || n > 500) return say("Write how many copies, from 0 to 500.");
            setCopies(n);
          }}
        />
      </div>
      <div className="mt-2 flex flex-wrap gap-1.5">
        <Plain pressed={asked?.how === "move"} onClick={() => askPlaces("move", copies)}>
          From here to there…
        </Plain>
        <Plain onClick={() => mirror("Mirror left to right", [0, 1000])}>Left to right</Plain>
        <Plain onClick={() => mirror("Mirror upside down", [1000, 0])}>Upside down</Plain>
        <Plain pressed={asked?.how === "mirror"} onClick={() => askPlaces("mirror", Math.min(1, copies))}>
          Mirror over a line…
        </Plain>
      </div>
    </fieldset>
  );
}
