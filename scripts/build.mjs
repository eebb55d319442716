// Installs what is missing and builds for production when something has changed.
import { build, install } from "./setup.mjs";

install();
build();
