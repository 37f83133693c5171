import { createContext } from "react";

/** What the core would not take, by its place: told beside the field it stands in. */
export const Refused = createContext<ReadonlyMap<string, string>>(new Map());
