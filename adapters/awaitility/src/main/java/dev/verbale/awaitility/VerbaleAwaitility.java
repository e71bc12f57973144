package dev.verbale.awaitility;

import org.awaitility.Awaitility;
import org.awaitility.core.ConditionEvaluationListener;
import org.jspecify.annotations.Nullable;

/**
 * Records waits: each is a step with what it waits for, how often it looked, how long that took, and what it found last. One that
 * ends in vain has its evidence of that moment.
 *
 * <p>Threads: from any. Failure: no call throws, and a wait ends as it does unwatched.
 *
 * <pre>{@code
 * VerbaleAwaitility.watch(); // once, such as in a set-up of the suite
 * await("the pump runs").atMost(ofSeconds(10)).until(pump::state, equalTo("running"));
 * }</pre>
 *
 * @since 0.2.0
 */
public final class VerbaleAwaitility {

    private VerbaleAwaitility() {}

    /**
     * From now on each wait of this JVM is recorded, until {@link Awaitility#reset()}. It takes the place of Awaitility's default
     * listener; a wait with a listener of its own is not heard.
     */
    public static void watch() {
        watch(null);
    }

    /** The same; {@code own} hears all waits too. */
    @SuppressWarnings("unchecked") // it takes what Awaitility gives it, as it would alone
    public static void watch(@Nullable ConditionEvaluationListener<?> own) {
        Awaitility.setDefaultConditionEvaluationListener(
                new WaitListener<>(Waits.byThread(), (ConditionEvaluationListener<Object>) own));
    }

    /**
     * For one wait: for those that poll in an executor of the suite's own, whose threads nobody can tell apart.
     *
     * <pre>{@code
     * await().conditionEvaluationListener(VerbaleAwaitility.listener()).pollExecutorService(pool).until(pump::isOn);
     * }</pre>
     */
    public static <T> ConditionEvaluationListener<T> listener() {
        return new WaitListener<>(Waits.ofOne(), null);
    }
}
