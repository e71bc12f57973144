package dev.verbale.cucumber;

import org.jspecify.annotations.Nullable;
import org.junit.platform.launcher.LauncherSession;
import org.junit.platform.launcher.LauncherSessionListener;

/**
 * Registers {@link VerbalePlugin} while the JUnit Platform runs tests. Found by {@link java.util.ServiceLoader}.
 *
 * @since 0.2.0
 */
public final class CucumberSessionListener implements LauncherSessionListener {

    private @Nullable String before;

    /** As {@link java.util.ServiceLoader} makes it. */
    public CucumberSessionListener() {}

    @Override
    public void launcherSessionOpened(LauncherSession session) {
        before = PluginProperty.set();
    }

    @Override
    public void launcherSessionClosed(LauncherSession session) {
        PluginProperty.restore(before);
    }
}
