package dev.verbale.internal;

/** What the recorder is asked for: what is counted where it cannot be done, and how a problem begins that tells of it. */
enum Task {
    CONTAINER_STARTED("container-started", "starting a container", false),
    CONTAINER_ENDED("container-ended", "ending a container", true),
    TEST_STARTED("test-started", "starting a test", false),
    TEST_ENDED("test-ended", "ending a test", false),
    STEP_STARTED("step-started", "starting a step", false),
    STEP_ENDED("step-ended", "ending a step", false),
    STEP_FAILED("step-ended", "failing a step", true),
    STEP_BUDGETED("step-budget", "giving a step its time", false),
    CHECK("check", "writing a check", false),
    NOTE("note", "writing a note", false),
    LOG("log", "keeping a log line", false),
    DATA("data", "naming data", false),
    FACT("fact", "stating a fact", false),
    DESCRIPTION("test-described", "describing a test", true),
    EXCHANGE("exchange", "writing an exchange", true),
    PAPER("paper", "attaching", true),
    PROMISE("paper-promised", "promising a paper", true),
    EVIDENCE("evidence", "taking evidence", true),
    SECRET("secret", "announcing a secret", true),
    TOTALS("totals", "saying the totals", true),
    ENDING("journal-ended", "ending the journal", true);

    /** By what it is counted: the event's own word where it is one. */
    final String kind;

    final String doing;

    /**
     * Whether it may take its time, and load what was not needed before: such a call is timed each time, and looks whether
     * there is stack enough before it begins.
     */
    final boolean slow;

    Task(String kind, String doing, boolean slow) {
        this.kind = kind;
        this.doing = doing;
        this.slow = slow;
    }
}
