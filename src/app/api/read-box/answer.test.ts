import Ajv2020 from "ajv/dist/2020";
import planSchema from "@/core/document/schema/plan-1.json";
import { answerReadBox } from "@/exchange/readBox/answerReadBox";
import { capture, truths } from "../../../../tests/captures/capture";
import { openApi } from "../openapi.json/openApi";

const ajv = new Ajv2020({ strict: false, allErrors: true, validateFormats: false, validateSchema: false });
ajv.addSchema(openApi, "/api/openapi.json");
ajv.addSchema(planSchema, "/schema/plan-1.json");
const isAsDescribed = ajv.getSchema("/api/openapi.json#/components/schemas/ReadBox")!;

test("answers are as the description says, with and without a plan, for everything that a real kernel has printed", () => {
  for (const folder of Object.keys(truths())) {
    const ask = (plan?: unknown) => {
      const body = { blockDevices: capture(folder, "lsblk.txt"), arrays: capture(folder, "mdstat.txt"), plan };
      const { status, body: bytes } = answerReadBox(JSON.stringify(body), "2026-11-26T10:00Z");
      return { status, answer: JSON.parse(new TextDecoder().decode(bytes)) };
    };
    const first = ask();
    expect([folder, first.status, isAsDescribed(first.answer), isAsDescribed.errors]).toEqual([
      folder,
      200,
      true,
      null,
    ]);
    // The plan that it answered is taken, and the next night nothing has changed: what runs goes on running.
    const next = ask(first.answer.plan);
    expect([isAsDescribed(next.answer), isAsDescribed.errors]).toEqual([true, null]);
    const codes = next.answer.differences.map(({ code }: { code: string }) => code);
    expect([folder, codes.filter((code: string) => code !== "array-running")]).toEqual([folder, []]);
    expect(next.answer.plan.pools).toEqual(first.answer.plan.pools);
  }
});
