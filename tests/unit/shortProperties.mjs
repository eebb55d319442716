import fc from "fast-check";

// Under mutation testing a property that would find a fault finds it early, or is no proof that it would.
fc.configureGlobal({ ...fc.readConfigureGlobal(), interruptAfterTimeLimit: 250, markInterruptAsFailure: false });
