import config from "./playwright.config";

/** Takes the pictures of docs/screenshots from the demo data. */
const shots = { ...config, testDir: "scripts/shots", reporter: [["list"]] as [["list"]] };
export default shots;
