import type { ComponentProps } from "react";

const LOOKS = {
  plain: "border-ink bg-slate hover:bg-paper",
  strong: "border-ink bg-marker text-on-marker font-semibold",
  dark: "border-strip bg-strip text-on-strip font-semibold",
  quiet: "border-transparent bg-transparent hover:border-line",
} satisfies Record<string, string>;

type ButtonProps = ComponentProps<"button"> & { look?: keyof typeof LOOKS };

/** A button of at least 44 px. */
export function Button({ look = "plain", className = "", ...rest }: ButtonProps) {
  return (
    <button
      type="button"
      className={`settle inline-flex min-h-11 items-center justify-center gap-2 rounded-[3px] border-[1.5px] px-3 py-1.5 text-left leading-tight disabled:cursor-not-allowed disabled:opacity-45 ${LOOKS[look]} ${className}`}
      {...rest}
    />
  );
}
