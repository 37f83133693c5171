/** Calls of the parts library; each gives what is wrong, or nothing. */
import { type Answer, answer, client, type PartView } from "../api/client";

const SILENT = "No answer from the program. Nothing was changed.";

function trouble(result: Answer<unknown>): string {
  if ("data" in result) return "";
  return "problem" in result ? result.problem.detail : SILENT;
}

/** Keeps a row as a new part, or in the place of one. */
export async function saveRow(view: PartView | undefined, row: Record<string, string>): Promise<string> {
  const body = { row };
  if (view === undefined) return trouble(await answer(client.POST("/api/v1/parts", { body })));
  return trouble(await answer(client.PUT("/api/v1/parts/{id}", { params: seen(view), body })));
}

/** Which part, and in which state it was seen: what was changed elsewhere since is not written over. */
function seen(view: PartView) {
  return { path: { id: view.id }, header: { "If-Match": `"${view.changed_at}"` } };
}

export async function retirePart(view: PartView, retired: boolean): Promise<string> {
  const body = { row: view.row, retired };
  return trouble(await answer(client.PUT("/api/v1/parts/{id}", { params: seen(view), body })));
}

export async function takeSamples(): Promise<string> {
  return trouble(await answer(client.POST("/api/v1/parts/samples")));
}

/** Takes a file in, as CSV or JSON by its name; all of it or nothing. */
export async function importParts(file: File): Promise<string> {
  const text = await file.text();
  const csv = file.name.toLowerCase().endsWith(".csv");
  return trouble(
    await answer(
      client.POST("/api/v1/parts/import", {
        body: text,
        bodySerializer: (body) => body,
        headers: { "Content-Type": csv ? "text/csv" : "application/json" },
      }),
    ),
  );
}
