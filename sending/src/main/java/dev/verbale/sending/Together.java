package dev.verbale.sending;

import java.io.IOException;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;

/** Does things side by side, on quiet threads that end with them; one at a time on the caller's own. */
final class Together {

    private Together() {}

    /**
     * The sum of what they give.
     *
     * @param atOnce so many at the most
     * @throws IOException the first one that any of them met; the others have ended then
     */
    static long sum(int atOnce, List<Callable<Long>> tasks) throws IOException, InterruptedException {
        long sum = 0;
        if (atOnce == 1 || tasks.size() < 2) {
            for (Callable<Long> task : tasks) sum += one(task);
            return sum;
        }
        ExecutorService threads = Executors.newFixedThreadPool(Math.min(atOnce, tasks.size()), task -> {
            Thread thread = new Thread(task, "verbale-sending");
            thread.setDaemon(true);
            thread.setPriority(Thread.MIN_PRIORITY);
            return thread;
        });
        try {
            for (Future<Long> done : threads.invokeAll(tasks)) sum += one(done::get);
            return sum;
        } finally {
            threads.shutdownNow();
        }
    }

    private static long one(Callable<Long> task) throws IOException, InterruptedException {
        try {
            return task.call();
        } catch (IOException | InterruptedException | RuntimeException met) {
            throw met;
        } catch (ExecutionException met) {
            if (met.getCause() instanceof IOException io) throw io;
            if (met.getCause() instanceof InterruptedException interrupted) throw interrupted;
            if (met.getCause() instanceof RuntimeException broken) throw broken;
            throw new IOException(met.getCause());
        } catch (Exception met) {
            throw new IOException(met);
        }
    }
}
