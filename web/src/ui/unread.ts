import { create } from "zustand";

/** Fields whose text could not be read for lack of an answer: typed, and not in the job yet. */
export const useUnread = create<{
  fields: ReadonlySet<string>;
  mark: (field: string, unread: boolean) => void;
}>()((set) => ({
  fields: new Set(),
  mark: (field, unread) =>
    set(({ fields }) => {
      if (fields.has(field) === unread) return { fields };
      const next = new Set(fields);
      if (unread) next.add(field);
      else next.delete(field);
      return { fields: next };
    }),
}));
