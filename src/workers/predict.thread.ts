import { answerRequest, type RequestAnswer } from "@/exchange/prediction/answerRequest";

/** A request to `/api/predict`, for a thread of the server. */
export interface PredictTask {
  text: string;
  /** The parts that are asked for, as in the address; null for all. */
  parts: string | null;
  /** As YYYY-MM-DD. */
  today: string;
}

/** What a thread of the server does. It keeps nothing. */
export default function answer({ text, parts, today }: PredictTask): RequestAnswer {
  return answerRequest(text, parts, today);
}
