package dev.verbale.engine;

import dev.verbale.border.Services;
import dev.verbale.border.ShownValue;
import dev.verbale.border.ThreadStop;
import dev.verbale.spi.Context;
import dev.verbale.spi.RunListener;
import java.util.List;
import java.util.ServiceLoader;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;

/** The listeners that hear when recording begins and ends in this JVM. */
final class RunListeners {

    /** Long enough for the page of a large run. */
    private static final long LONGEST_END_MILLIS = TimeUnit.MINUTES.toMillis(1);

    private final Consumer<String> problems;
    private volatile List<RunListener> listeners = List.of();

    RunListeners(Consumer<String> problems) {
        this.problems = problems;
    }

    void open(Context context) {
        listeners = Services.of(ServiceLoader.load(RunListener.class, RunListener.class.getClassLoader()), problems);
        for (RunListener listener : listeners) hear(listener, "opened", () -> listener.opened(context));
    }

    /** On a thread of its own: nothing may keep a JVM alive for ever. */
    void end(Context context) {
        List<RunListener> all = listeners;
        listeners = List.of();
        if (all.isEmpty()) return;
        var ending = new Thread(
                () -> {
                    for (RunListener listener : all) hear(listener, "ended", () -> listener.ended(context));
                },
                "verbale-after-run");
        ending.setDaemon(true);
        ending.start();
        try {
            ending.join(LONGEST_END_MILLIS);
        } catch (InterruptedException hurried) {
            Thread.currentThread().interrupt();
        }
    }

    private void hear(RunListener listener, String what, Runnable call) {
        try {
            call.run();
        } catch (Throwable broken) {
            ThreadStop.goesOn(broken);
            problems.accept(what + " of " + listener.getClass().getName() + ": " + ShownValue.of(broken));
        }
    }
}
