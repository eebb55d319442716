import { boxNow } from "../boxClock";

/** This moment by the box's clock, as plans write it: in UTC, to the minute. */
export const nowInstant = (): string => `${new Date(boxNow()).toISOString().slice(0, 16)}Z`;
