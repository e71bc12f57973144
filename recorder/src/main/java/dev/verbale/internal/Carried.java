package dev.verbale.internal;

import dev.verbale.recorder.Recorder;
import dev.verbale.recorder.Scope;
import java.util.List;
import java.util.concurrent.AbstractExecutorService;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;

/** Work that runs in the scope it was handed over in, on whatever thread. */
public final class Carried {

    private Carried() {}

    public static Runnable runnable(Recorder recorder, Runnable work) {
        Scope scope = recorder.here();
        return () -> {
            try (Recorder.Stay stay = recorder.enter(scope)) {
                work.run();
            }
        };
    }

    public static <T> Callable<T> callable(Recorder recorder, Callable<T> work) {
        Scope scope = recorder.here();
        return () -> {
            try (Recorder.Stay stay = recorder.enter(scope)) {
                return work.call();
            }
        };
    }

    public static <T> Supplier<T> supplier(Recorder recorder, Supplier<T> work) {
        Scope scope = recorder.here();
        return () -> {
            try (Recorder.Stay stay = recorder.enter(scope)) {
                return work.get();
            }
        };
    }

    public static ExecutorService executor(Recorder recorder, ExecutorService executor) {
        return new CarryingExecutor(recorder, executor);
    }

    /** Hands every task on with the scope of the thread that submitted it. */
    private static final class CarryingExecutor extends AbstractExecutorService {
        private final Recorder recorder;
        private final ExecutorService inner;

        CarryingExecutor(Recorder recorder, ExecutorService inner) {
            this.recorder = recorder;
            this.inner = inner;
        }

        @Override
        public void execute(Runnable task) {
            inner.execute(task == null ? task : runnable(recorder, task));
        }

        @Override
        public void shutdown() {
            inner.shutdown();
        }

        @Override
        public List<Runnable> shutdownNow() {
            return inner.shutdownNow();
        }

        @Override
        public boolean isShutdown() {
            return inner.isShutdown();
        }

        @Override
        public boolean isTerminated() {
            return inner.isTerminated();
        }

        @Override
        public boolean awaitTermination(long timeout, TimeUnit unit) throws InterruptedException {
            return inner.awaitTermination(timeout, unit);
        }
    }
}
