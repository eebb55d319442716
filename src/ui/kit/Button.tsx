import type { ButtonHTMLAttributes, Ref } from "react";

const LOOKS = {
  /** The one main act on a page. */
  main: "bg-indigo text-on-indigo hover:bg-indigo-strong disabled:bg-line disabled:text-soft",
  plain:
    "border border-line-strong/60 bg-raised text-ink hover:border-ink disabled:text-soft " +
    "disabled:hover:border-line-strong/60",
  quiet: "text-ink hover:bg-wall disabled:text-soft/70 disabled:hover:bg-transparent",
};

type Props = ButtonHTMLAttributes<HTMLButtonElement> & {
  look?: keyof typeof LOOKS;
  small?: boolean;
  ref?: Ref<HTMLButtonElement>;
};

/** A button with words. */
export function Button({ look = "plain", small = false, className = "", type = "button", ...rest }: Props) {
  const size = small ? "h-7 px-2 text-[0.87rem]" : "h-9 px-3";
  return (
    <button
      type={type}
      className={
        "inline-flex shrink-0 items-center justify-center gap-1.5 rounded whitespace-nowrap transition-colors print:hidden " +
        `${size} ${LOOKS[look]} ${className}`
      }
      {...rest}
    />
  );
}

/** A button with a picture only; `label` is its name and its hint. */
export function IconButton({
  label,
  className = "",
  children,
  ...rest
}: Omit<Props, "look" | "small"> & { label: string }) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      className={
        "inline-flex size-8 shrink-0 items-center justify-center rounded text-ink transition-colors " +
        `hover:bg-wall disabled:text-line-strong/60 disabled:hover:bg-transparent ${className}`
      }
      {...rest}
    >
      {children}
    </button>
  );
}
