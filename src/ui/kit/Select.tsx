import { useId, type SelectHTMLAttributes } from "react";

export interface Option<T extends string = string> {
  value: T;
  label: string;
}

/** A list to open, of options. */
export function Select({
  options,
  ...select
}: SelectHTMLAttributes<HTMLSelectElement> & { options: readonly Option[] }) {
  return (
    <select {...select}>
      {options.map((option) => (
        <option key={option.value} value={option.value}>
          {option.label}
        </option>
      ))}
    </select>
  );
}

/** The same with its label beside it, told when one is picked. */
export function SelectBeside<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T;
  options: readonly Option<T>[];
  onChange: (value: T) => void;
}) {
  const id = useId();
  return (
    <div className="flex max-w-full min-w-0 items-center gap-1.5">
      <label htmlFor={id} className="text-soft">
        {label}
      </label>
      <Select
        id={id}
        value={value}
        options={options}
        onChange={(event) => onChange(event.target.value as T)}
        className="h-8 min-w-0 flex-1 rounded border border-line-strong/60 bg-raised px-1"
      />
    </div>
  );
}
