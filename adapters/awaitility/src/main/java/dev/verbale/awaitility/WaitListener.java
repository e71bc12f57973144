package dev.verbale.awaitility;

import dev.verbale.spi.Context;
import org.awaitility.core.ConditionEvaluationListener;
import org.awaitility.core.EvaluatedCondition;
import org.awaitility.core.IgnoredException;
import org.awaitility.core.StartEvaluationEvent;
import org.awaitility.core.TimeoutEvent;
import org.jspecify.annotations.Nullable;

/** Hears what Awaitility says of waits, and passes it on to the suite's own listener. */
final class WaitListener<T> implements ConditionEvaluationListener<T> {

    private final Waits waits;
    private final @Nullable ConditionEvaluationListener<T> own;

    WaitListener(Waits waits, @Nullable ConditionEvaluationListener<T> own) {
        this.waits = waits;
        this.own = own;
    }

    @Override
    public void beforeEvaluation(StartEvaluationEvent<T> begins) {
        safely(() -> {
            Wait before = open();
            if (before != null) before.isFollowed();
            waits.begins(new Wait(name(begins.getAlias(), begins.getDescription()), open()));
        });
        if (own != null) own.beforeEvaluation(begins);
    }

    @Override
    public void conditionEvaluated(EvaluatedCondition<T> condition) {
        safely(() -> {
            Wait wait = open();
            if (wait == null) return;
            wait.looked(condition.getDescription());
            if (condition.isSatisfied()) wait.isFulfilled(condition.getElapsedTimeInMS());
        });
        if (own != null) own.conditionEvaluated(condition);
    }

    @Override
    public void onTimeout(TimeoutEvent over) {
        safely(() -> {
            Wait wait = waits.current();
            if (wait != null) wait.isInVain(over.getDescription(), over.getElapsedTimeInMS());
        });
        if (own != null) own.onTimeout(over);
    }

    @Override
    public void exceptionIgnored(IgnoredException ignored) {
        safely(() -> {
            Wait wait = open();
            if (wait != null) wait.looked(String.valueOf(ignored.getThrowable()));
        });
        if (own != null) own.exceptionIgnored(ignored);
    }

    private @Nullable Wait open() {
        Wait last = waits.current();
        return last == null ? null : last.open();
    }

    private static void safely(Runnable work) {
        Context.current().safely("hearing a wait", work);
    }

    private static String name(@Nullable String alias, @Nullable String description) {
        return alias != null ? alias : description == null ? "a condition holds" : description;
    }
}
