/** This moment as plans write it: in UTC, to the minute. */
export const nowInstant = (): string => `${new Date().toISOString().slice(0, 16)}Z`;
