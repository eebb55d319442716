// The development server, with the validators compiled first.
import { bin, bundleThreads, generate, install, run } from "./setup.mjs";

install();
generate();
bundleThreads();
run(bin("next"), ["dev", "--port", process.env.PORT ?? "3000"]);
