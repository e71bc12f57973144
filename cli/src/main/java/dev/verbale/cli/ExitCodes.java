package dev.verbale.cli;

/** What the command says to a script. */
final class ExitCodes {

    static final int DONE = 0;
    /** A fault in Verbale itself; the stack trace goes with it. */
    static final int BROKEN = 1;
    /** The arguments are wrong; nothing was read or written. */
    static final int USAGE = 2;
    /** There is no run where one was looked for, or it cannot be read; or one that is remembered cannot be, where all were to be handed on. */
    static final int NO_RUN = 3;
    /** What was to be written, sent or judged could not be; what was there before is as it was. */
    static final int NOT_WRITTEN = 4;

    /** The gate is closed: the run is not good enough by the rules. */
    static final int GATE_CLOSED = 5;

    /** The run is not what was sealed, or nobody who may sealed it. */
    static final int NOT_AS_SEALED = 6;

    private ExitCodes() {}
}
