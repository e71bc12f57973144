package dev.verbale.cli;

import dev.verbale.hub.Hub;
import dev.verbale.lake.AnyLake;
import dev.verbale.lake.Lake;
import java.io.IOException;
import java.time.Duration;
import java.util.HashMap;
import java.util.Map;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Brings what a hub remembers into a lake, a project at most once an hour, and where something new is remembered of it. On one quiet thread; what fails is
 * in the log, and is done again.
 */
final class HourlyLake implements AutoCloseable {

    private static final Logger LOG = LoggerFactory.getLogger(HourlyLake.class);

    private static final Duration EVERY = Duration.ofHours(1);
    private static final Duration LOOKED_EVERY = Duration.ofSeconds(2);

    private final Hub hub;
    private final AnyLake lake;
    private final Duration every;
    private final Duration lookedEvery;
    private final Map<String, Done> done = new HashMap<>();
    private final CountDownLatch over = new CountDownLatch(1);
    private final Thread thread = new Thread(this::run, "hub-lake");

    /** @param version of what was remembered */
    private record Done(long version, long nanos) {}

    HourlyLake(Hub hub, AnyLake lake) {
        this(hub, lake, EVERY, LOOKED_EVERY);
    }

    /** @param lookedEvery whether something new is remembered */
    HourlyLake(Hub hub, AnyLake lake, Duration every, Duration lookedEvery) {
        this.hub = hub;
        this.lake = lake;
        this.every = every;
        this.lookedEvery = lookedEvery;
        thread.setDaemon(true);
        thread.setPriority(Thread.MIN_PRIORITY);
        thread.start();
    }

    private void run() {
        try {
            do {
                look();
            } while (!over.await(lookedEvery.toMillis(), TimeUnit.MILLISECONDS));
        } catch (InterruptedException hurried) {
            Thread.currentThread().interrupt();
        }
    }

    private void look() {
        try {
            for (var one : hub.histories().entrySet()) {
                if (over.getCount() == 0) return;
                try {
                    bring(one.getKey(), one.getValue());
                } catch (IOException | RuntimeException away) {
                    LOG.atWarn()
                            .setCause(away)
                            .addKeyValue("project", one.getKey())
                            .log("What is remembered comes into the lake an hour later.");
                }
            }
        } catch (IOException away) {
            LOG.warn("The database does not say what is remembered.", away);
        }
    }

    private void bring(String project, Hub.Remembered now) throws IOException {
        Done before = done.get(project);
        long version = before == null ? 0 : before.version;
        if (now.version() == version || before != null && System.nanoTime() - before.nanos < every.toNanos()) return;
        // Also where it fails: the next one comes in an hour, and other projects are served.
        done.put(project, new Done(version, System.nanoTime()));
        Lake.Added added = lake.addRemembered(project, now.folder(), problem -> LOG.warn(problem.sentence()));
        done.put(project, new Done(now.version(), System.nanoTime()));
        LOG.atInfo()
                .addKeyValue("project", project)
                .addKeyValue("runs", added.runs())
                .log("Runs came into the lake.");
    }

    /** Ends behind the run that comes in just now. */
    @Override
    public void close() {
        over.countDown();
        try {
            thread.join(30_000);
        } catch (InterruptedException hurried) {
            Thread.currentThread().interrupt();
        }
    }
}
