package dev.verbale.benchmarks;

import java.nio.file.Path;
import org.junit.platform.engine.TestExecutionResult;
import org.junit.platform.launcher.TestExecutionListener;
import org.junit.platform.launcher.TestIdentifier;

/** What somebody would write in an afternoon: the start and the end of each test through Logback's JSON file appender. */
public final class LogbackListener implements TestExecutionListener {

    private final Sinks.Words words = Sinks.logbackWords(Path.of(System.getProperty("verbale.root")));

    @Override
    public void executionStarted(TestIdentifier id) {
        if (id.isTest()) words.write("started " + id.getUniqueId());
    }

    @Override
    public void executionFinished(TestIdentifier id, TestExecutionResult result) {
        if (id.isTest()) words.write("finished " + id.getUniqueId() + " " + result.getStatus());
    }
}
