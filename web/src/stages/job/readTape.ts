import { answer, client } from "../../api/client";
import type { TapeReader } from "../../ui/tapeReading";

/** Asks the server to read a typed length. */
export const readTape: TapeReader = async (text, unit, signed) => {
  const result = await answer(client.GET("/api/v1/tape", { params: { query: { text, unit, signed } } }));
  if ("data" in result) return { value: { text, unit, mm: result.data.mm } };
  if ("silent" in result) {
    return { fault: "The program does not answer. What you typed is kept on this device.", silent: true };
  }
  const place = result.problem.errors?.[0];
  return { fault: result.problem.detail, start: place?.start, end: place?.end };
};
