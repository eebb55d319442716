"use client";

import { part } from "../kit/part";

// On a page of its own it would be cut into pieces that the first page has to fetch too.
const NewFromBox = part(() => import("./NewFromBox").then((module) => module.NewFromBox), {
  needed: "this page",
  meanwhile: (
    <main className="p-6 text-soft" role="status">
      Opening …
    </main>
  ),
});

/** A plan of a box as it is, from what the box prints. */
export const NewFromBoxPage = () => <NewFromBox />;
