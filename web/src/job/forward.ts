/**
 * What this device has kept since an older program, brought to today's form by the server before it is shown: a document
 * that was not saved, and texts that were typed and not taken.
 */
import { answer, client, type Job } from "../api/client";
import { drafts } from "../ui/drafts";
import type { Kept } from "./queue";

/** The kept document in the form of the one on the screen; as it is where the server does not answer. */
export async function keptForward(kept: Kept, today: Job): Promise<Kept> {
  if (kept.document.version === today.version) return kept;
  const body = { document: kept.document, places: [] };
  const result = await answer(client.POST("/api/v1/compute/forward", { body }));
  if (!("data" in result) || !result.data.document) throw new Error("kept for later");
  return { ...kept, document: result.data.document };
}

/** Texts of a job that are at places where no field stands any more go to where it stands now. */
export async function draftsForward(job: string): Promise<void> {
  const places = drafts.places(job);
  if (places.length === 0) return;
  const result = await answer(client.POST("/api/v1/compute/forward", { body: { places } }));
  if (!("data" in result)) return;
  for (const [from, to] of Object.entries(result.data.places)) drafts.move(job, from, to);
}
