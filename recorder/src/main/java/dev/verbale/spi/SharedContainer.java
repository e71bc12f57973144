package dev.verbale.spi;

import dev.verbale.Scope;
import dev.verbale.border.ThreadStop;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A container whose tests may run on many threads, such as a class that TestNG runs in parallel or a feature, and of which its
 * framework does not say when the last of them is over until all around it is. It ends when the last thing in it was over.
 *
 * <p>Safe to use from several threads.
 *
 * <pre>{@code
 * SharedContainer feature = SharedContainer.start(recorder, recorder.run(), TestDescriptor.of("swap.feature", "Swap").build());
 * Scope test = recorder.startTest(feature.scope(), TestDescriptor.of("swap.feature:3", "Swap plots").build());
 * recorder.endTest(test, TestEnd.passed());
 * feature.lastedUntilNow();
 * }</pre>
 *
 * @since 0.2.0
 */
public final class SharedContainer {

    private static final int MAX_FAILURES = 100;

    private final AdapterRecorder recorder;
    private final TestDescriptor descriptor;
    private final Scope scope;

    private volatile long lastAt;
    private final List<Throwable> broken = new ArrayList<>();
    private @Nullable String brokenBy;

    private SharedContainer(AdapterRecorder recorder, Scope in, TestDescriptor descriptor) {
        this.recorder = recorder;
        this.descriptor = descriptor;
        this.scope = recorder.startSharedContainer(in, descriptor);
        this.lastAt = recorder.now();
    }

    /** One that begins inside {@code in}. */
    public static SharedContainer start(AdapterRecorder recorder, Scope in, TestDescriptor descriptor) {
        TestDescriptor known =
                descriptor == null ? TestDescriptor.of("null", "null").build() : descriptor;
        try {
            return new SharedContainer(recorder, in, known);
        } catch (RuntimeException | Error notOfVerbale) { // nor does that get into a test
            ThreadStop.goesOn(notOfVerbale);
            return new SharedContainer(AdapterRecorder.none(), Scope.NONE, known);
        }
    }

    /** Its identity. */
    public String key() {
        return descriptor.key();
    }

    /** What a reader sees. */
    public String name() {
        return descriptor.name();
    }

    /** What lies in it belongs there. */
    public Scope scope() {
        return scope;
    }

    /** Something in it is over. */
    public void lastedUntilNow() {
        lastAt = recorder.now();
    }

    /** {@code fixture} failed. The first one is why the container broke: it is what keeps its tests from running; others are recorded beside it. */
    public synchronized void brokenBy(String fixture, Throwable failure) {
        if (failure == null || broken.size() == MAX_FAILURES) return;
        broken.add(failure);
        if (brokenBy == null) brokenBy = fixture;
    }

    /** The fixture that failed first; null where none did. */
    public synchronized @Nullable String brokenBy() {
        return brokenBy;
    }

    /** Nothing more happens in it. */
    public synchronized void end() {
        recorder.endContainer(scope, TestEnd.threwAll(broken).at(lastAt), 0);
    }
}
