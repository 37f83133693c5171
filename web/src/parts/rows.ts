/** What is typed of a part, as it stands in a file of parts. Pure, no React. */
import type { TapeEntry } from "../api/client";
import type { HoleRow } from "./HoleRows";

/** A length as it stands in a file: with its unit. */
export const withUnit = ({ text, unit }: TapeEntry) =>
  /[a-z"'″′]/i.test(text) ? text.trim() : `${text.trim()} ${unit ?? "in"}`;

/** The holes as they stand in a file. */
export const holesText = (holes: readonly HoleRow[]) =>
  holes
    .filter((hole) => hole.up)
    .map((hole) =>
      [
        `${hole.name.trim()}: ${hole.up ? withUnit(hole.up) : ""}`,
        ...(hole.outward ? [`outward ${withUnit(hole.outward)}`] : []),
        ...(hole.forward ? [`forward ${withUnit(hole.forward)}`] : []),
      ].join(", "),
    )
    .join("; ");
