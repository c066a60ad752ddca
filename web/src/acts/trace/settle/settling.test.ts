import { beforeEach, describe, expect, it, vi } from "vitest";
import { deskWithPlan, type Serving, STOREY } from "../../../testing/desk";
import { previewSettling, settle, useSettling } from "./settling";

let server: Serving;

beforeEach(() => {
  server = deskWithPlan();
});

describe("settling", () => {
  it("is shown before it is done, and shown anew when it was", async () => {
    server.answers = { settled: { moves: [], contradictions: [], unheld: [] } };
    await previewSettling(STOREY);
    expect(useSettling.getState().of).toBe(STOREY);
    useSettling.setState({ of: null, told: null });
    await settle(STOREY);
    expect(server.sent[0]?.operations).toEqual([{ do: "settle", settle: { storey: STOREY } }]);
    await vi.waitFor(() => expect(useSettling.getState().of).toBe(STOREY));
  });
});
