package dev.verbale.engine;

import dev.verbale.CarriedTask;
import dev.verbale.Scope;
import dev.verbale.spi.Context;
import dev.verbale.spi.Entered;
import java.util.List;
import java.util.concurrent.AbstractExecutorService;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;

/** Work that runs in the scope it was handed over in, on whatever thread. */
final class Carried {

    private Carried() {}

    static Runnable runnable(Context recorder, Runnable work) {
        Scope scope = recorder.currentScope();
        return () -> {
            try (Entered entered = recorder.enter(scope)) {
                work.run();
            }
        };
    }

    static <T extends @Nullable Object> CarriedTask<T> task(Context recorder, Callable<T> work) {
        return new Task<>(recorder, recorder.currentScope(), work);
    }

    static ExecutorService executor(Context recorder, ExecutorService executor) {
        return new CarryingExecutor(recorder, executor);
    }

    private record Task<T extends @Nullable Object>(Context recorder, Scope scope, Callable<T> work)
            implements CarriedTask<T> {
        @Override
        public T call() throws Exception {
            try (Entered entered = recorder.enter(scope)) {
                return work.call();
            }
        }

        @Override
        public T get() {
            return CarriedTask.unchecked(this);
        }
    }

    /** Hands every task on with the scope of the thread that submitted it. */
    private static final class CarryingExecutor extends AbstractExecutorService {
        private final Context recorder;
        private final ExecutorService inner;

        CarryingExecutor(Context recorder, ExecutorService inner) {
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
