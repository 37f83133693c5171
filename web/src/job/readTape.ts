import { answer, client } from "../api/client";
import type { TapeReader } from "../ui/tapeReading";

/** Asks the server to read a typed length. */
export const readTape: TapeReader = async (text, unit, signed) => {
  const result = await answer(client.GET("/api/v1/tape", { params: { query: { text, unit, signed } } }));
  if ("data" in result) {
    const { read, wrong } = result.data;
    if (read) return { value: { text, unit, mm: read.mm } };
    return { fault: wrong?.message ?? "Not a length.", start: wrong?.start, end: wrong?.end };
  }
  if ("silent" in result) {
    return { fault: "No answer from the program. What you typed is saved on this device.", silent: true };
  }
  return { fault: result.problem.detail };
};
