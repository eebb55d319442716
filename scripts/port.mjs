/** The port that PORT names; says what is wrong with it and ends the program where it is none. */
export function portOf(text = "3000") {
  if (/^\d{1,5}$/.test(text) && Number(text) >= 1 && Number(text) <= 65535) return Number(text);
  console.error(
    `PORT is "${text}", which is no port number. Use one from 1 to 65535, for instance PORT=8080 npm start.`,
  );
  process.exit(1);
}
