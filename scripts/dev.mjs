// The development server, with the validators compiled first.
import { bin, generate, install, run } from "./setup.mjs";

install();
generate();
run(bin("next"), ["dev", "--port", process.env.PORT ?? "3000"]);
