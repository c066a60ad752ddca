import { useProject } from "./project";
import { inOrder } from "./rows";

/** Storeys from the lowest to the highest, alternatives after what they are one of. */
export function storeysInOrder() {
  const all = inOrder(useProject.getState().rows.storey.values());
  return all.sort((a, b) => a.elevation - b.elevation || (a.alternativeOf === null ? -1 : 1));
}
