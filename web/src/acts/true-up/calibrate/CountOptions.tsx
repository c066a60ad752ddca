import { useDesk } from "../../../board/desk";
import { useProject } from "../../../store/project";
import { Field } from "../../../ui/parts";
import { useNextLength } from "../../nextLength";
import { missingOf } from "./calibrate";

/** How large one of what is counted is, asked where the project does not know it yet. */
export function CountOptions() {
  const text = useDesk((s) => s.slip ?? "");
  const module = useNextLength((s) => s.module);
  useProject((s) => s.rows.project);
  const missing = missingOf(text);
  if (missing === null) return null;
  return (
    <div className="mt-1.5 w-44">
      <Field
        label={missing === "course" ? "one course, from joint to joint" : "one unit, from joint to joint"}
        value={module[missing]}
        placeholder={missing === "course" ? "e.g. 75" : "e.g. 225"}
        onChange={(typed) => {
          useNextLength.setState({ module: { ...module, [missing]: typed } });
          useDesk.setState({ slipError: null });
        }}
      />
    </div>
  );
}
