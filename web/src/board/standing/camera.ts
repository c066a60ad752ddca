/** A place in the room, metres: x and y as on the plan, z up. */
export type Place3 = readonly [number, number, number];

/** How the building is looked at: round a place, or from one. */
export interface Eye {
  /** what is looked at; inside, where one stands */
  at: Place3;
  /** how far off the eye is; 0 inside */
  distance: number;
  /** which way it looks, radians counter-clockwise from north, and how far down */
  turn: number;
  tilt: number;
}

/** degrees up and down: from outside as through a longer lens, inside as wide as one sees */
export const FIELD_OF_VIEW = 34;
export const FIELD_INSIDE = 68;
const STEEPEST = Math.PI / 2 - 0.01;
const [NEAREST, FURTHEST] = [0.3, 2e4];

/** Where the eye looks, as a unit of length. */
export function ahead({ turn, tilt }: Pick<Eye, "turn" | "tilt">): Place3 {
  return [-Math.sin(turn) * Math.cos(tilt), Math.cos(turn) * Math.cos(tilt), -Math.sin(tilt)];
}

export function eyeOf(eye: Eye): Place3 {
  const [x, y, z] = ahead(eye);
  return [eye.at[0] - x * eye.distance, eye.at[1] - y * eye.distance, eye.at[2] - z * eye.distance];
}

/** Turned by a drag of so many pixels; half a turn across 600 of them. */
export function turned(eye: Eye, dx: number, dy: number): Eye {
  // What is under the pointer goes along with it: inside all that is round one, outside the near side of the building.
  const per = (eye.distance === 0 ? -Math.PI : Math.PI) / 600;
  return {
    ...eye,
    turn: eye.turn - dx * per,
    tilt: Math.max(-STEEPEST, Math.min(STEEPEST, eye.tilt + dy * per)),
  };
}

/** Moved beside itself by a drag of so many pixels, so that what is looked at stays under the pointer. */
export function panned(eye: Eye, dx: number, dy: number, height: number): Eye {
  const per = (2 * eye.distance * Math.tan((FIELD_OF_VIEW * Math.PI) / 360)) / Math.max(1, height);
  const right: Place3 = [Math.cos(eye.turn), Math.sin(eye.turn), 0];
  const [ax, ay, az] = ahead(eye);
  // Up in the picture: across both.
  const up: Place3 = [right[1] * az - right[2] * ay, right[2] * ax - right[0] * az, right[0] * ay - right[1] * ax];
  const move = (i: 0 | 1 | 2) => eye.at[i] - right[i] * dx * per + up[i] * dy * per;
  return { ...eye, at: [move(0), move(1), move(2)] };
}

/** Nearer or further by a factor, about a place that stays where it is seen. */
export function zoomed(eye: Eye, factor: number, about: Place3): Eye {
  const distance = Math.max(NEAREST, Math.min(FURTHEST, eye.distance * factor));
  const by = distance / eye.distance;
  const to = (i: 0 | 1 | 2) => about[i] + (eye.at[i] - about[i]) * by;
  return { ...eye, distance, at: [to(0), to(1), to(2)] };
}

/** Steps on the level, metres, the way one looks. */
export function walked(eye: Eye, forward: number, aside: number): Eye {
  const [s, c] = [Math.sin(eye.turn), Math.cos(eye.turn)];
  return { ...eye, at: [eye.at[0] - s * forward + c * aside, eye.at[1] + c * forward + s * aside, eye.at[2]] };
}

/** From where all between two corners is seen, from the south-west and above. */
export function whole(least: Place3, most: Place3, aspect: number): Eye {
  const middle = (i: 0 | 1 | 2) => (least[i] + most[i]) / 2;
  const radius = Math.max(0.5, Math.hypot(most[0] - least[0], most[1] - least[1], most[2] - least[2]) / 2);
  const half = (FIELD_OF_VIEW * Math.PI) / 360;
  const across = Math.atan(Math.tan(half) * Math.min(1, aspect));
  return {
    // A little above the middle of the picture: along its foot stands what can be chosen.
    at: [middle(0), middle(1), middle(2) - 0.09 * radius],
    distance: (radius / Math.sin(across)) * 1.05,
    turn: -Math.PI / 5,
    tilt: Math.PI / 7,
  };
}
