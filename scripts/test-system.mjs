// Real file systems on sparse images against the prediction. Needs root, loop devices and the mkfs tools.
import { bin, fileSystemTools, generate, install, run } from "./setup.mjs";

install();
generate();
fileSystemTools();
run(bin("jest"), ["--config", "jest.system.config.mjs"]);
