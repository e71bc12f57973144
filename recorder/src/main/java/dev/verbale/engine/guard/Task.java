package dev.verbale.engine.guard;

/** What the recorder is asked for: what is counted where it cannot be done, and how the problem begins that says so. */
public enum Task {
    CONTAINER_STARTED("container-started", "starting a container", false),
    CONTAINER_ENDED("container-ended", "ending a container", true),
    TEST_STARTED("test-started", "starting a test", false),
    TEST_IDENTIFIED("test-identified", "identifying a test", false),
    TEST_ENDED("test-ended", "ending a test", false),
    STEP_STARTED("step-started", "starting a step", false),
    STEP_ENDED("step-ended", "ending a step", false),
    STEP_FAILED("step-ended", "failing a step", true),
    STEP_BUDGETED("step-budget", "giving a step its time", false),
    CHECK("check", "recording a check", false),
    LOG_TEXT("log", "logging a line", false),
    LOG("log", "keeping a logger's line", false),
    DATA("data", "naming data", false),
    FACT("fact", "stating a fact", false),
    ABOUT("about", "recording what a test is about", true),
    EXCHANGE("exchange", "recording an exchange", true),
    ATTACHMENT("attachment", "attaching", true),
    PENDING("attachment-pending", "starting a pending attachment", true),
    EVIDENCE("evidence", "capturing evidence", true),
    SECRET("secret", "keeping a secret", true),
    TOTALS("totals", "printing the totals", true),
    ENDING("journal-ended", "ending the journal", true);

    /** What a call that was lost is counted as, in the run's sentence of what is missing: the event's word in the journal where it makes one. */
    public final String kind;

    public final String doing;

    /**
     * Whether it may take its time, and load what was not needed before: such a call is timed each time, and looks whether
     * there is stack enough before it begins. The others look the first time.
     */
    public final boolean slow;

    Task(String kind, String doing, boolean slow) {
        this.kind = kind;
        this.doing = doing;
        this.slow = slow;
    }
}
