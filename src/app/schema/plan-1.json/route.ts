import schema from "@/core/document/schema/plan-1.json";

export const dynamic = "force-static";

/** The JSON Schema of plan documents. */
export function GET(): Response {
  return Response.json(schema, { headers: { "content-type": "application/schema+json" } });
}
