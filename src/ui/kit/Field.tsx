import { type InputHTMLAttributes, type ReactNode, type SelectHTMLAttributes, useContext, useId } from "react";
import { Select, type Option } from "./Select";
import { WrongField } from "./wrong";

/** The look of a text field or a select under its label. */
export const FIELD = "mt-0.5 h-9 w-full rounded border border-line-strong/70 bg-raised px-2";

/** A field with its label above it, and what explains it below. */
export function Labelled({ label, children }: { label: string; children: ReactNode }) {
  return (
    <label className="block min-w-0">
      <span className="text-[0.9rem] text-soft">{label}</span>
      {children}
    </label>
  );
}

/** What a field says of itself where it is wrong, and the message under it. */
function useWrong(name: string | undefined) {
  const id = useId();
  const wrong = useContext(WrongField);
  if (!wrong || name === undefined || wrong.field !== name) return { says: {}, message: null };
  return {
    says: { "aria-invalid": true, "aria-describedby": id },
    message: (
      <p id={id} role="alert" className="mt-0.5 text-geranium">
        {wrong.message}
      </p>
    ),
  };
}

/** A field of text with its label above it, and what is wrong with it below. */
export function TextField({ label, ...input }: InputHTMLAttributes<HTMLInputElement> & { label: string }) {
  const { says, message } = useWrong(input.name);
  return (
    <div className="min-w-0">
      <Labelled label={label}>
        <input {...input} {...says} className={FIELD} />
      </Labelled>
      {message}
    </div>
  );
}

interface ChoiceProps extends Omit<SelectHTMLAttributes<HTMLSelectElement>, "onChange"> {
  label: string;
  options: readonly Option[];
  onPick?: (value: string) => void;
}

/** One of a few, with its label above it: by name in a form, or told when it is picked. */
export function Choice({ label, options, onPick, ...select }: ChoiceProps) {
  const { says, message } = useWrong(select.name);
  return (
    <div className="min-w-0">
      <Labelled label={label}>
        <Select
          {...select}
          {...says}
          options={options}
          className={FIELD}
          onChange={onPick && ((event) => onPick(event.target.value))}
        />
      </Labelled>
      {message}
    </div>
  );
}

interface TickProps extends Omit<InputHTMLAttributes<HTMLInputElement>, "type" | "onChange"> {
  onTick?: (on: boolean) => void;
  children: ReactNode;
}

/** A box to tick with its words beside it: by name in a form, or told when it is ticked. */
export function Tick({ onTick, children, className = "", ...input }: TickProps) {
  return (
    <label className={`flex min-h-[24px] min-w-0 items-center gap-2 ${className}`}>
      <input
        {...input}
        type="checkbox"
        className="shrink-0 accent-indigo"
        onChange={onTick && ((event) => onTick(event.target.checked))}
      />
      {children}
    </label>
  );
}

/** The list with one of its entries in or out, as a tick says. */
export const ticked = (list: readonly string[], entry: string, on: boolean): string[] =>
  on ? [...list, entry] : list.filter((each) => each !== entry);
