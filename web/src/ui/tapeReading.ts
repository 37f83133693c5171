import { createContext } from "react";
import type { TapeEntry, Unit } from "../api/client";
import type { Judged } from "./useTypedField";

/** Reads a typed length with the core's own grammar. */
export type TapeReader = (text: string, unit: Unit, signed: boolean) => Promise<Judged<TapeEntry>>;

/** Who reads is given from above: fields do not know the server. */
export const TapeReading = createContext<TapeReader>(async () => ({ fault: "Lengths can't be read here." }));
