import { useEffect, useState } from "react";
import { Field } from "./parts";

/** A field that is set when it is left or Enter is pressed. */
export function Typed({ label, value, set }: { label: string; value: string; set: (text: string) => void }) {
  const [text, setText] = useState(value);
  useEffect(() => setText(value), [value]);
  const done = () => {
    if (text.trim() !== "" && text !== value) set(text);
  };
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
