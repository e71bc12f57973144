package dev.verbale.engine.scope;

/** Something that was begun in a test, a container or the run, and ends with it at the latest. */
public interface OpenUntilScopeEnds {

    /** Its test, container or run ends now, and waits no longer. */
    void scopeEnds();

    /** There are too many of its kind, and it is the oldest. Whoever began another may hold locks of its own. */
    void tooMany();
}
