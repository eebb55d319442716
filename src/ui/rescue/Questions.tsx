"use client";

import type { RescueChoices, RescueQuestion } from "@/core/rescue/rescue";
import { lengthWords } from "@/core/time/hoursWords";

/** What can be chosen otherwise, and what each answer costs. */
export function Questions({
  questions,
  onChoose,
}: {
  questions: readonly RescueQuestion[];
  onChoose: (choices: RescueChoices) => void;
}) {
  if (questions.length === 0) return null;
  return (
    <div className="mt-4 space-y-3 print:hidden">
      {questions.map((question) => (
        <fieldset key={`${question.id}-${question.drive ?? ""}`}>
          <legend className="font-semibold">{question.asks}</legend>
          {question.options.map((option) => (
            <label key={option.label} className="flex min-h-8 items-baseline gap-2 py-0.5">
              <input
                type="radio"
                name={`${question.id}-${question.drive ?? ""}`}
                checked={option.chosen}
                disabled={option.cannot !== null && !option.chosen}
                onChange={() => onChoose(option.choices)}
                className="size-4 translate-y-0.5 accent-indigo"
              />
              <span>
                {option.label}
                <span className="text-soft">
                  {option.cannot
                    ? `: cannot be done. ${option.cannot}`
                    : `: ${lengthWords(option.hours)} in ` +
                      `all${option.bareHours > 0 ? `, ${lengthWords(option.bareHours)} exposed` : ""}`}
                </span>
              </span>
            </label>
          ))}
        </fieldset>
      ))}
    </div>
  );
}
