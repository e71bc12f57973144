package dev.verbale.benchmarks;

import dev.verbale.MediaType;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.folder.RunFolder;
import dev.verbale.sending.RunSender;
import dev.verbale.sending.SendOptions;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Deque;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Many workers that record and send at once to one hub, each so many events a second and now and then an attachment: how long it takes until what
 * was recorded can be read there, and what that costs the hub.
 *
 * <p>Arguments: workers, events a second of each, seconds; then what else the hub is started with, such as {@code --database URL}.
 */
public final class HubLoad {

    private static final int EVENTS_A_TEST = 20;
    private static final int EVENTS_AN_ATTACHMENT = 200;
    private static final byte[] ATTACHMENT = "kale,3\n".repeat(3_000).getBytes(StandardCharsets.UTF_8);
    private static final long LOOKED_EVERY = TimeUnit.MILLISECONDS.toNanos(20);

    private HubLoad() {}

    /** A journal here, its copy there, and when it had which size. */
    private static final class Watched {
        private final Path journal;
        private final Path copies;
        private final Deque<long[]> sizes = new ArrayDeque<>();
        private @Nullable Path copy;

        Watched(Path journal, Path copies) {
            this.journal = journal;
            this.copies = copies;
        }

        /** Looks at both, and adds how long each size took to get there, in nanoseconds. */
        void look(List<Long> latencies) throws IOException {
            long now = System.nanoTime();
            long here = Files.size(journal);
            if (sizes.isEmpty() || sizes.getLast()[1] < here) sizes.add(new long[] {now, here});
            long there = copy == null && !find() ? 0 : copy.toFile().length();
            while (!sizes.isEmpty() && sizes.getFirst()[1] <= there) latencies.add(now - sizes.removeFirst()[0]);
        }

        private boolean find() throws IOException {
            if (!Files.isDirectory(copies)) return false;
            String part = journal.getParent().getParent().getFileName().toString();
            try (Stream<Path> all = Files.list(copies)) {
                copy = all.filter(one -> one.getFileName().toString().contains(part))
                        .findFirst()
                        .map(one -> one.resolve("journals").resolve(journal.getFileName()))
                        .orElse(null);
            }
            return copy != null;
        }
    }

    public static void main(String[] arguments) throws Exception {
        int workers = Integer.parseInt(arguments[0]);
        int rate = Integer.parseInt(arguments[1]);
        int seconds = Integer.parseInt(arguments[2]);
        Path folder = Files.createTempDirectory("hub-load");
        StartedHub hub =
                new StartedHub(folder.resolve("hub"), List.of(arguments).subList(3, arguments.length));
        URI address = hub.address;
        String token = hub.token("send");
        Duration before = hub.cpu();
        Duration ownBefore = ProcessHandle.current().info().totalCpuDuration().orElse(Duration.ZERO);
        var isOver = new AtomicBoolean();
        List<Thread> threads = new ArrayList<>();
        List<Thread> senders = new ArrayList<>();
        List<Watched> watched = new ArrayList<>();
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(seconds);
        for (int i = 0; i < workers; i++) {
            AdapterRecorder recorder = AdapterRecorder.open(RecorderOptions.defaults()
                    .withRoot(folder.resolve("runs/" + i))
                    .withSummaryLine(false));
            recorder.log("begun");
            RunFolder run = new RunFolder(recorder.folder());
            watched.add(new Watched(run.journalFiles().get(0), folder.resolve("hub/copies/load/night/shards")));
            threads.add(new Thread(() -> record(recorder, rate, end)));
            senders.add(new Thread(() -> send(
                    new RunSender(run, new SendOptions(address, "load", "night", token, Duration.ofSeconds(60))),
                    isOver)));
        }
        senders.forEach(Thread::start);
        threads.forEach(Thread::start);
        List<Long> latencies = new ArrayList<>();
        while (System.nanoTime() < end) {
            for (Watched one : watched) one.look(latencies);
            LockSupport.parkNanos(LOOKED_EVERY);
        }
        for (Thread thread : threads) thread.join();
        Duration used = hub.cpu().minus(before);
        Duration own = ProcessHandle.current()
                .info()
                .totalCpuDuration()
                .orElse(Duration.ZERO)
                .minus(ownBefore);
        isOver.set(true);
        long last = System.nanoTime();
        for (Thread sender : senders) sender.join();
        System.out.printf(
                Locale.ROOT,
                "%d workers, %d events/s each, %d s: there after %s at the median, %s for 99 of 100, %s at the most; hub %.2f processors,"
                        + " recording and sending %.2f; the end took %s%n",
                workers,
                rate,
                seconds,
                at(latencies, 0.5),
                at(latencies, 0.99),
                at(latencies, 1),
                used.toMillis() / 1_000.0 / seconds,
                own.toMillis() / 1_000.0 / seconds,
                millis(System.nanoTime() - last));
        hub.close();
    }

    private static void record(AdapterRecorder recorder, int rate, long end) {
        long next = System.nanoTime();
        Scope test = null;
        for (int i = 0; System.nanoTime() < end; i++) {
            if (i % EVENTS_A_TEST == 0) {
                if (test != null) recorder.endTest(test, TestEnd.passed());
                test = recorder.startTest(
                        recorder.run(), TestDescriptor.of("load.T" + i, "t" + i).build());
            }
            recorder.log("watered bed " + i + " with 3 litres");
            if (i % EVENTS_AN_ATTACHMENT == 0) recorder.attach("rota.csv", ATTACHMENT, MediaType.CSV);
            next += TimeUnit.SECONDS.toNanos(1) / rate;
            LockSupport.parkNanos(next - System.nanoTime());
        }
        if (test != null) recorder.endTest(test, TestEnd.passed());
    }

    private static void send(RunSender sender, AtomicBoolean isOver) {
        try {
            sender.follow(Duration.ofMinutes(10), isOver::get);
        } catch (Exception failed) {
            System.out.println("not sent: " + failed);
        }
    }

    private static String at(List<Long> latencies, double part) {
        if (latencies.isEmpty()) return "never";
        Collections.sort(latencies);
        return millis(latencies.get((int) Math.min(latencies.size() - 1L, Math.round(part * latencies.size()))));
    }

    private static String millis(long nanos) {
        return TimeUnit.NANOSECONDS.toMillis(nanos) + " ms";
    }
}
