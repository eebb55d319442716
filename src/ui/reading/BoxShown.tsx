"use client";

import { useId, useMemo } from "react";
import { formatBytes, formatExactBytes } from "@/core/bytes/formatBytes";
import type { Plan, Pool } from "@/core/document/plan";
import { bayOf } from "@/core/drives/drive";
import { isGone } from "@/core/drives/driveState";
import { nameOfDriveFirst } from "@/core/drives/nameOfDrive";
import { conditionWords } from "@/core/failures/conditionWords";
import { layoutOf } from "@/core/layouts/registry";
import { predict } from "@/core/prediction/predict";
import type { Question } from "@/core/reading/question";
import { ownValue } from "@/core/records/ownValue";
import type { ArraySize, Recognised } from "@/core/reading/recognise";
import { counted } from "@/core/words/counted";
import { listOf } from "@/core/words/listOf";
import { SmallTerraces } from "../compare/SmallTerraces";
import { Choice } from "../kit/Field";
import { Size } from "../kit/Size";
import { TerracePatterns } from "../kit/Swatch";
import { useSize } from "../kit/useSize";
import { useUnit } from "../preferences/preferences";

/** How high the picture is, in CSS pixels. */
const HEIGHT = 190;

interface Props {
  recognised: Recognised;
  answers: Readonly<Record<string, string>>;
  onAnswer: (question: string, answer: string) => void;
}

/** A box as it was made out: its picture, its pools in words, what is asked, and what could not be made out. */
export function BoxShown({ recognised, answers, onAnswer }: Props) {
  const { plan, questions, notMadeOut, sizes } = recognised;
  const [unit] = useUnit();
  const prediction = useMemo(() => predict(plan, unit), [plan, unit]);
  const [ref, size] = useSize<HTMLDivElement>();
  const failed = useMemo(() => new Set(plan.drives.filter(isGone).map(({ id }) => id)), [plan]);
  return (
    <div className="grid gap-x-8 gap-y-5 lg:grid-cols-[minmax(0,26rem)_minmax(0,1fr)]">
      <TerracePatterns />
      <div ref={ref} className="min-w-0">
        {size && plan.drives.some((drive) => bayOf(drive) !== null) && (
          <SmallTerraces
            plan={plan}
            pools={prediction.pools}
            width={Math.min(size.width, plan.box.bays * 110)}
            height={HEIGHT}
            failed={failed}
          />
        )}
      </div>
      <ul className="min-w-0 space-y-4">
        {plan.pools.map((pool) => (
          <PoolWords key={pool.id} plan={plan} pool={pool} state={prediction.pools.find(({ id }) => id === pool.id)} />
        ))}
        {plan.pools.length === 0 && <li>No pool was made out. The drives are taken as they are.</li>}
      </ul>
      <div className="space-y-5 lg:col-span-2">
        <FreeDrives recognised={recognised} />
        {questions.map((question) => (
          <Asked key={question.id} question={question} answer={ownValue(answers, question.id)} onAnswer={onAnswer} />
        ))}
        <NotMadeOut sentences={notMadeOut.filter((said) => !questions.some(({ asks }) => said.startsWith(asks)))} />
        <Sizes sizes={sizes} />
      </div>
    </div>
  );
}

function PoolWords({
  plan,
  pool,
  state,
}: {
  plan: Plan;
  pool: Pool;
  state: ReturnType<typeof predict>["pools"][number] | undefined;
}) {
  const [unit] = useUnit();
  const nameOf = (id: string) => {
    const drive = plan.drives.find((each) => each.id === id);
    return drive ? nameOfDriveFirst(drive, unit) : id;
  };
  return (
    <li>
      <h3 className="text-lg">
        <span className="font-semibold">{pool.name}</span>
        {state && (
          <>
            {": "}
            <Size bytes={state.usableBytes} />. {conditionWords(state.condition, state.tolerance)}.
          </>
        )}
      </h3>
      {pool.groups.map((group) => (
        <div key={group.id} className="mt-1">
          {layoutOf(group.layout).shortName} ({layoutOf(group.layout).name}) on {counted(group.drives.length, "drive")},
          in this order:
          <ol className="ml-5 list-decimal">
            {group.drives.map((id) => (
              <li key={id}>
                {nameOf(id)}
                {group.options?.parityDrives?.includes(id) ? ": holds the parity" : ""}
              </li>
            ))}
          </ol>
        </div>
      ))}
      {pool.spares.length > 0 && <p>Hot spare: {listOf(pool.spares.map(nameOf))}.</p>}
      {pool.volumes.map((volume) => (
        <p key={volume.id}>
          Volume {volume.name}: <Size bytes={volume.bytes} />
          {volume.fileSystem === "none" ? "" : `, ${volume.fileSystem}`}
          {volume.usedBytes === undefined ? ", not mounted" : `, ${formatBytes(volume.usedBytes, unit)} used`}.
        </p>
      ))}
    </li>
  );
}

/** Drives that are in no pool yet, or not at all. */
function FreeDrives({ recognised: { plan, running } }: Pick<Props, "recognised">) {
  const [unit] = useUnit();
  const filled = new Set(
    running.flatMap((step) => ("by" in step ? [step.by] : "drives" in step && step.drives ? step.drives : [])),
  );
  const taken = new Set(
    plan.pools.flatMap((pool) => [...pool.spares, ...pool.groups.flatMap((group) => group.drives)]),
  );
  const free = plan.drives.filter((drive) => !taken.has(drive.id) && bayOf(drive) !== null);
  if (free.length === 0) return null;
  return (
    <div>
      <h3 className="font-semibold">Not in a pool now</h3>
      <ul className="ml-5 list-disc">
        {free.map((drive) => (
          <li key={drive.id}>
            {nameOfDriveFirst(drive, unit)}
            {filled.has(drive.id) ? ": being filled" : drive.contents?.detail ? `: ${drive.contents.detail}` : ""}
          </li>
        ))}
      </ul>
    </div>
  );
}

function Asked({
  question,
  answer,
  onAnswer,
}: {
  question: Question;
  answer: string | undefined;
  onAnswer: Props["onAnswer"];
}) {
  const value = answer ?? question.guess ?? "";
  return (
    <div className="border-l-4 border-ochre-text pl-3">
      <Choice
        label={question.asks}
        value={value}
        options={[...(value === "" ? [{ value: "", label: "Choose …" }] : []), ...question.choices]}
        onPick={(picked) => onAnswer(question.id, picked)}
      />
      {answer === undefined && question.guess !== null && (
        <p className="mt-1 text-[0.9rem] text-soft">This is a guess, since {question.because}.</p>
      )}
    </div>
  );
}

function NotMadeOut({ sentences }: { sentences: readonly string[] }) {
  const id = useId();
  if (sentences.length === 0) return null;
  return (
    <section aria-labelledby={id}>
      <h3 id={id} className="font-semibold">
        What could not be made out, or is a guess
      </h3>
      <ul className="ml-5 list-disc">
        {sentences.map((sentence) => (
          <li key={sentence}>{sentence}</li>
        ))}
      </ul>
    </section>
  );
}

/** What was read of each array, held against what its drives give, to the byte. */
function Sizes({ sizes }: { sizes: readonly ArraySize[] }) {
  if (sizes.length === 0) return null;
  return (
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Sizes of the arrays">
      <table className="w-full max-w-xl text-[0.95rem]">
        <caption className="text-left font-semibold">Sizes, held against the prediction to the byte</caption>
        <thead>
          <tr className="text-left text-soft">
            <th className="pr-3 font-normal">Array</th>
            <th className="pr-3 text-right font-normal">Read</th>
            <th className="pr-3 text-right font-normal">Predicted from its drives</th>
            <th className="font-normal">
              <span className="sr-only">Whether they agree</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {sizes.map(({ array, readBytes, predictedBytes }) => (
            <tr key={array} className="border-t border-line">
              <td className="pr-3">{array}</td>
              <td className="pr-3 text-right tabular-nums">{formatExactBytes(readBytes)}</td>
              <td className="pr-3 text-right tabular-nums">{formatExactBytes(predictedBytes)}</td>
              <td>{readBytes === predictedBytes ? "agree" : "differ"}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
