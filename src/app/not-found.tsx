import Link from "next/link";

export default function NotFound() {
  return (
    <main className="mx-auto max-w-xl px-6 py-24">
      <h1 className="font-serif text-3xl">There is nothing at this address</h1>
      <p className="mt-4 text-soft">Your plans are kept in this browser and are still there.</p>
      <Link href="/" className="mt-6 inline-block text-indigo underline underline-offset-4">
        Go to your plans
      </Link>
    </main>
  );
}
