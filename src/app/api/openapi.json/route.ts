import { openApi } from "./openApi";

export const dynamic = "force-static";

/** The OpenAPI 3.1 description of what Cortijo answers over HTTP. */
export function GET(): Response {
  return Response.json(openApi);
}
