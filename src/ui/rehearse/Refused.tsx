/** Why something could not be done to the plan; nothing where it could. */
export const Refused = ({ why }: { why: string | null }) =>
  why === null ? null : (
    <p role="alert" className="mt-1 text-geranium">
      {why}
    </p>
  );
