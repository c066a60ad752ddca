import type { Thing } from "../../../store/rows";
import type { Region } from "../../../store/shapes";
import { area, written } from "../../../ui/measures";

/** Width of a character of a label and height of its lines, px, as it is and small: it stands in the room that it tells of. */
const SIZES = { plain: [7.7, 16], small: [6.4, 14] } as const;
/** A name may reach over the walls of a narrow room so far. */
const NARROW_PX = 48;

/** Clear width and depth. */
export const sidesOf = ({ clear: [width = 0, depth = 0] }: Region) => `${written(width)} × ${written(depth)}`;

export interface InRoom {
  /** px, in steps, so that a label is not made anew at each step of a zoom */
  width: number;
  small: boolean;
  area: boolean;
  sides: boolean;
}

/** What of a label has room in its room, a name in two lines at most. */
export function inRoom(width: number, depth: number, room: Thing<"room"> | undefined, region: Region): InRoom {
  const wide = Math.max(NARROW_PX, 8 * Math.ceil(width / 8));
  const title = room ? `${room.number} ${room.name}`.trim() : "not named";
  const longest = Math.max(...[...title.split(" "), area(region.netAreaM2)].map((word) => word.length));
  const small = longest * SIZES.plain[0] > width;
  const [character, line] = small ? SIZES.small : SIZES.plain;
  const fits = (text: string) => text.length * character < width;
  const lines = Math.min(2, Math.ceil((title.length * character) / wide));
  const more = Math.floor((depth - 4) / line) - lines;
  const isArea = more >= 1 && fits(area(region.netAreaM2));
  return { width: wide, small, area: isArea, sides: isArea && more >= 2 && fits(sidesOf(region)) };
}
