package dev.verbale.testng;

import dev.verbale.Scope;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.SharedContainer;
import dev.verbale.spi.TestDescriptor;
import org.jspecify.annotations.Nullable;
import org.testng.ISuite;

/** A suite while it runs. */
final class RunningSuite {

    private final AdapterRecorder recorder;
    private final ISuite suite;
    private @Nullable SharedContainer own;

    RunningSuite(AdapterRecorder recorder, ISuite suite) {
        this.recorder = recorder;
        this.suite = suite;
    }

    /** Its own container. Of one that nobody wrote there is one only where somebody has to hold a fixture. */
    synchronized SharedContainer own() {
        SharedContainer there = own;
        if (there != null) return there;
        var begun = SharedContainer.start(
                recorder,
                recorder.run(),
                TestDescriptor.of(Names.of(suite), Names.of(suite)).build());
        own = begun;
        return begun;
    }

    /** What lies in it belongs there. */
    synchronized Scope scope() {
        return own == null ? recorder.run() : own.scope();
    }

    synchronized @Nullable SharedContainer broken() {
        return own != null && own.brokenBy() != null ? own : null;
    }

    synchronized void end() {
        if (own != null) own.end();
    }
}
