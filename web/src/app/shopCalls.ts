import { answer, client } from "../api/client";

/** Takes the job files of a zip in as new jobs. */
export const takeShop = (file: File) =>
  answer(
    client.POST("/api/v1/shop.zip", {
      body: "",
      bodySerializer: () => file,
      headers: { "Content-Type": "application/zip" },
    }),
  );
