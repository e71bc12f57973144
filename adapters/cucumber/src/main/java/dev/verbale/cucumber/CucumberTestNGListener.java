package dev.verbale.cucumber;

import org.jspecify.annotations.Nullable;
import org.testng.IExecutionListener;

/**
 * Registers {@link VerbalePlugin} while TestNG runs tests. Found by {@link java.util.ServiceLoader}.
 *
 * @since 0.2.0
 */
public final class CucumberTestNGListener implements IExecutionListener {

    private @Nullable String before;

    /** As {@link java.util.ServiceLoader} makes it. */
    public CucumberTestNGListener() {}

    @Override
    public void onExecutionStart() {
        before = PluginProperty.set();
    }

    @Override
    public void onExecutionFinish() {
        PluginProperty.restore(before);
    }
}
