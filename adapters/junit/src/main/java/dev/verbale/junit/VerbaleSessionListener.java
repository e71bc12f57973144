package dev.verbale.junit;

import dev.verbale.spi.AdapterRecorder;
import java.util.Optional;
import org.junit.platform.launcher.LauncherSession;
import org.junit.platform.launcher.LauncherSessionListener;

/**
 * Says the totals when the launcher has done its work. Found by {@link java.util.ServiceLoader}.
 *
 * @since 0.2.0
 */
public final class VerbaleSessionListener implements LauncherSessionListener {

    @Override
    public void launcherSessionClosed(LauncherSession session) {
        // A session of a test's own, inside the suite's, ends nothing.
        if (Launches.isRunning()) return;
        Optional<AdapterRecorder> recorder = AdapterRecorder.currentIfOpen();
        if (recorder.isPresent()) recorder.get().sessionEnded();
    }
}
