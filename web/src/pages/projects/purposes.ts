import type { Schemas } from "../../api/client";

export const PURPOSES: readonly Schemas["Purpose"][] = ["quick model", "planning", "construction"];
