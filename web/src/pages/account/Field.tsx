/** A labelled field of a form about one's account. */
export function Field({
  label,
  type,
  autoComplete,
  value,
  onChange,
}: {
  label: string;
  type: "email" | "password";
  autoComplete: string;
  value: string;
  onChange: (value: string) => void;
}) {
  return (
    <label className="mt-3 block">
      {label}
      <input
        className="mt-1 w-full rounded border border-line bg-white px-2.5 py-2 text-base"
        type={type}
        autoComplete={autoComplete}
        required
        value={value}
        onChange={(e) => onChange(e.target.value)}
      />
    </label>
  );
}
