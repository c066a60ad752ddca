import { useEffect, useState } from "react";
import { useProject } from "../store/project";
import { Field } from "./parts";

/** A field that is set when it is left or Enter is pressed. */
export function Typed({
  label,
  value,
  set,
  mayBeEmpty = false,
}: {
  label: string;
  value: string;
  set: (text: string) => void;
  mayBeEmpty?: boolean;
}) {
  const reads = useProject((s) => s.role === "read");
  const [text, setText] = useState(value);
  useEffect(() => setText(value), [value]);
  const done = () => {
    if ((mayBeEmpty || text.trim() !== "") && text !== value) set(text);
  };
  if (reads)
    return (
      <div className="min-w-0 flex-1 text-xs text-quiet">
        {label}
        <div className="mt-0.5 px-1.5 py-1 text-[14px] text-ink">{value}</div>
      </div>
    );
  return (
    <Field
      label={label}
      value={text}
      onChange={setText}
      onBlur={done}
      onKeyDown={(e) => {
        if (e.key === "Enter") done();
      }}
    />
  );
}
