import Link from "next/link";

/** The way on from a page that shows no plan. */
export function ToYourPlans() {
  return (
    <p className="mt-6">
      <Link href="/" className="text-indigo underline underline-offset-4">
        Go to your plans
      </Link>
    </p>
  );
}
