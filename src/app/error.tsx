"use client";

/** Shown when the page itself breaks. What was done before is kept, since every command is saved as it happens. */
export default function ErrorPage({ error, reset }: { error: Error; reset: () => void }) {
  return (
    <main className="mx-auto max-w-xl px-6 py-24">
      <h1 className="font-serif text-3xl">Something broke on this page</h1>
      <p className="mt-4 text-soft">
        Your plan is as you left it: every change was saved as it happened. What went wrong: {error.message}
      </p>
      <button type="button" onClick={reset} className="mt-6 rounded bg-indigo px-4 py-2 text-on-indigo">
        Try again
      </button>
    </main>
  );
}
