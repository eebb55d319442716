import Ajv2020 from "ajv/dist/2020";
import planSchema from "@/core/document/schema/plan-1.json";
import { MISHAPS } from "@/core/simulator/mishaps";
import { numbered } from "@/core/testing/anySteps";
import { boxWith, withDrive } from "@/core/testing/boxWith";
import { answerPracticeBox } from "@/exchange/practiceBox/answerPracticeBox";
import { openApi } from "../openapi.json/openApi";

const ajv = new Ajv2020({ strict: false, allErrors: true, validateFormats: false, validateSchema: false });
ajv.addSchema(openApi, "/api/openapi.json");
ajv.addSchema(planSchema, "/schema/plan-1.json");
const isAnswer = ajv.getSchema("/api/openapi.json#/components/schemas/PracticeBox")!;
const PATH = "#/paths/~1api~1practice-box/post";
const isAsked = ajv.getSchema(`/api/openapi.json${PATH}/requestBody/content/application~1json/schema`)!;
const isRefusal = ajv.getSchema(`/api/openapi.json${PATH}/responses/422/content/application~1json/schema`)!;

test("requests with each kind of mishap, and their answers, are as the description says", () => {
  const stored = { volumes: [{ id: "v1", name: "V", bytes: 3e12, fileSystem: "ext4" as const, usedBytes: 1e12 }] };
  const box = boxWith("scheduled-parity", "parity-drive-1", [8, 4, 4], [8, 8], stored);
  const steps = numbered(box, [
    { kind: "set-spare", pool: "p1", drive: "x2" },
    { kind: "replace-drive", drive: "d2", by: "x1", how: "pulled" },
  ]).steps;
  const plan = { ...withDrive(box, "d1", { serial: "ORD-1", health: { state: "good", powerOnHours: 900 } }), steps };
  for (const kind of MISHAPS) {
    const named = { drive: "d2", pool: "p1", volume: "v1", blocks: 3, bytes: 5e6, times: 4 };
    const needs: Record<string, (keyof typeof named)[]> = {
      "parity-updated": ["pool"],
      deletion: ["volume"],
      unreadable: ["drive", "blocks"],
      short: ["drive", "bytes"],
      slow: ["drive", "times"],
    };
    const none = ["power-cut", "grow-forgotten", "fire"];
    const names = needs[kind] ?? (none.includes(kind) ? [] : ["drive"]);
    const mishap = { at: 2, kind, ...Object.fromEntries(names.map((name) => [name, named[name]])) };
    const asked = { plan, seed: 9, hours: 30, mishaps: [mishap], choices: { afterAMishap: "go-on" } };
    expect([kind, isAsked(asked), isAsked.errors]).toEqual([kind, true, null]);
    const { status, body } = answerPracticeBox(JSON.stringify(asked));
    const answer: unknown = JSON.parse(new TextDecoder().decode(body));
    expect([kind, status, isAnswer(answer), isAnswer.errors]).toEqual([kind, 200, true, null]);
  }
  const strange = { plan, mishaps: [{ at: 1, kind: "drive-dies", drive: "d9" }] };
  const { status, body } = answerPracticeBox(JSON.stringify(strange));
  expect([status, isRefusal(JSON.parse(new TextDecoder().decode(body)))]).toEqual([422, true]);
});
