package dev.verbale.awaitility;

import dev.verbale.spi.AdapterStep;
import dev.verbale.spi.Capture;
import dev.verbale.spi.Context;
import dev.verbale.spi.LogLine;
import dev.verbale.vocabulary.StepKind;
import java.util.concurrent.atomic.AtomicReference;
import org.awaitility.core.ConditionTimeoutException;
import org.jspecify.annotations.Nullable;

/** A wait, from its first look until what it waits for is there or its time is over. Begun and ended on two threads. */
final class Wait {

    private static final int LONGEST = 1_000;

    /** Nothing once it is over. */
    private final AtomicReference<@Nullable AdapterStep> step;

    private final String name;
    private final Thread thread = Thread.currentThread();

    /** What waits for this one, in whose condition it began; null for none. */
    private final @Nullable Wait outer;

    private volatile int tries;
    private volatile @Nullable String last;

    /** @param outer in whose condition it begins; null for none */
    Wait(String name, @Nullable Wait outer) {
        this.outer = outer;
        this.name = "wait until " + name;
        step = new AtomicReference<>(begun());
    }

    private AdapterStep begun() {
        return Capture.current().startOverlappingStep(StepKind.ACTION, name);
    }

    /** It looked once more. */
    @SuppressWarnings("NonAtomicVolatileUpdate") // one thread looks at a time
    void looked(String found) {
        tries++;
        last = Context.current().shortened(found, LONGEST);
    }

    void isFulfilled(long millis) {
        AdapterStep open = step.getAndSet(null);
        if (open == null) return;
        log(millis);
        open.passed();
    }

    /** @param why as Awaitility says it, and is about to throw it */
    void isInVain(String why, long millis) {
        AdapterStep open = step.getAndSet(null);
        if (open == null) open = begun(); // it held, and not as long as it had to
        log(millis);
        open.failed(new ConditionTimeoutException(why));
    }

    /** This one, or the nearest around it that is not over. */
    @Nullable
    Wait open() {
        Wait one = this;
        while (one != null && one.step.get() == null) one = one.outer;
        return one;
    }

    /**
     * Its thread waits for something else: it ended, and nobody said how. Its condition threw something, or one to fail fast did. A
     * condition that waits itself does so on another thread.
     */
    void isFollowed() {
        if (!Thread.currentThread().equals(thread)) return;
        AdapterStep open = step.getAndSet(null);
        if (open != null) open.close();
    }

    private void log(long millis) {
        String found = last == null ? "" : ": " + last;
        Capture.current()
                .log(LogLine.of((tries == 1 ? "looked once" : "looked " + tries + " times") + ", " + millis + " ms"
                                + found)
                        .build());
    }
}
