import { Plus, Trash2 } from "lucide-react";
import type { ReactNode } from "react";
import { Button } from "./Button";

type RowsProps<T> = {
  items: readonly T[];
  /** What one is called, for the button that takes it out. */
  name: (item: T, index: number) => string;
  add: string;
  /** Their place in the document. */
  pointer?: string;
  onAdd: () => void;
  onSet: (items: T[]) => void;
  children: (item: T, index: number, put: (part: Partial<T>) => void) => ReactNode;
};

/** A list a person adds to and takes from, each entry with its fields. */
export function Rows<T extends object>({ items, name, add, pointer, onAdd, onSet, children }: RowsProps<T>) {
  // A row that others point at goes by its id: its fields stay its own when rows above it come and go.
  const keys = items.map((item, index) =>
    "id" in item && typeof item.id === "string" ? item.id : String(index),
  );
  return (
    <div className="grid gap-1" data-pointer={pointer}>
      {items.map((item, index) => (
        <div
          key={keys[index]}
          className="grid grid-cols-[minmax(0,1fr)_auto] items-start gap-2 border-line border-b pb-1"
        >
          <div className="min-w-0">
            {children(item, index, (part) =>
              onSet(items.map((old, at) => (at === index ? { ...old, ...part } : old))),
            )}
          </div>
          <Button
            look="quiet"
            className="mt-6"
            aria-label={`remove ${name(item, index)}`}
            onClick={() => onSet(items.filter((_, at) => at !== index))}
          >
            <Trash2 size={18} aria-hidden />
          </Button>
        </div>
      ))}
      <div>
        <Button onClick={onAdd}>
          <Plus size={18} aria-hidden />
          {add}
        </Button>
      </div>
    </div>
  );
}
