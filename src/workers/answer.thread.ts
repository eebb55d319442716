import { answerBestWay } from "@/exchange/bestWay/answerBestWay";
import { answerRequest, type RequestAnswer } from "@/exchange/prediction/answerRequest";
import { answerPracticeBox } from "@/exchange/practiceBox/answerPracticeBox";
import { answerReadBox } from "@/exchange/readBox/answerReadBox";

/** A request over HTTP, for a thread of the server. */
export type AnswerTask =
  | {
      to: "predict";
      text: string;
      /** The parts that are asked for, as in the address; null for all. */
      parts: string | null;
      /** As YYYY-MM-DD. */
      today: string;
    }
  | {
      to: "read-box";
      text: string;
      /** As an instant, to the minute. */
      now: string;
    }
  | { to: "practice-box"; text: string }
  | {
      to: "best-way";
      text: string;
      /** As YYYY-MM-DD. */
      today: string;
    };

/** What a thread of the server does. It keeps nothing. */
export default function answer(task: AnswerTask): RequestAnswer {
  switch (task.to) {
    case "predict":
      return answerRequest(task.text, task.parts, task.today);
    case "read-box":
      return answerReadBox(task.text, task.now);
    case "practice-box":
      return answerPracticeBox(task.text);
    case "best-way":
      return answerBestWay(task.text, task.today);
  }
}
