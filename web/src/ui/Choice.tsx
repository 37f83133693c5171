import { ToggleGroup } from "radix-ui";
import type { ReactNode } from "react";

export type Option<T extends string> = { value: T; label: string };

/**
 * The options of a choice, from what each value is called. Every value has to be there: a new one of the document does not
 * compile until somebody has said what it is called.
 */
export const optionsOf = <T extends string>(labels: Record<T, string>): readonly Option<T>[] =>
  (Object.entries(labels) as [T, string][]).map(([value, label]) => ({ value, label }));

type ChoiceProps<T extends string> = {
  label: string;
  value: T | undefined;
  options: readonly Option<T>[];
  onPick: (value: T) => void;
  hint?: string | undefined;
  /** Its place in the document. */
  pointer?: string;
  /** A picture over each label. */
  picture?: (value: T) => ReactNode;
};

/** One of a few, all of them in sight. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onPick,
  hint,
  picture,
  pointer,
}: ChoiceProps<T>) {
  return (
    <div className="min-w-0" data-pointer={pointer}>
      <div className="mb-1 text-[15px] text-muted">{label}</div>
      <ToggleGroup.Root
        type="single"
        aria-label={label}
        value={value ?? ""}
        onValueChange={(picked) => picked && onPick(picked as T)}
        className="flex flex-wrap gap-1.5"
      >
        {options.map((option) => (
          <ToggleGroup.Item
            key={option.value}
            value={option.value}
            className="settle min-h-11 whitespace-nowrap rounded-[3px] border-[1.5px] border-line bg-slate px-3 py-1 leading-tight data-[state=on]:border-ink data-[state=on]:bg-marker data-[state=on]:font-semibold data-[state=on]:text-on-marker"
          >
            {picture?.(option.value)}
            {option.label}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
      {hint && <p className="mt-1 text-[15px] text-muted">{hint}</p>}
    </div>
  );
}
