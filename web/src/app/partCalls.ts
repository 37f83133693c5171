/** Calls of the parts library; each gives what is wrong, or nothing. */
import { type Answer, answer, client, type PartView } from "../api/client";

const SILENT = "The program does not answer. Nothing was changed.";

function trouble(result: Answer<unknown>): string {
  if ("data" in result) return "";
  return "problem" in result ? result.problem.detail : SILENT;
}

/** Keeps a row as a new part, or in the place of one. */
export async function saveRow(id: string | undefined, row: Record<string, string>): Promise<string> {
  const body = { row };
  if (id === undefined) return trouble(await answer(client.POST("/api/v1/parts", { body })));
  return trouble(await answer(client.PUT("/api/v1/parts/{id}", { params: { path: { id } }, body })));
}

export async function retirePart(view: PartView, retired: boolean): Promise<string> {
  const params = { path: { id: view.id } };
  return trouble(
    await answer(client.PUT("/api/v1/parts/{id}", { params, body: { row: view.row, retired } })),
  );
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
