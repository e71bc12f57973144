package dev.verbale.benchmarks;

import dev.verbale.MediaType;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.folder.RunFolder;
import dev.verbale.history.HistoryFolder;
import dev.verbale.sending.RunSender;
import dev.verbale.sending.SendOptions;
import dev.verbale.sending.SentRun;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.time.Duration;
import java.time.OffsetDateTime;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Flow;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicLongArray;

/**
 * What a hub does with much: {@code arrive TESTS} sends a run of so many, and opens it; {@code readers N} has so many look at one run while it
 * goes; {@code history RUNS TESTS} asks for its pages over so many. Behind them what else the hub is started with, such as
 * {@code --database URL}. For {@code history} that is needed: the runs are put into it.
 */
public final class HubScale {

    private static final int TESTS_AN_ATTACHMENT = 20;
    private static final byte[] ATTACHMENT = "kale,3\n".repeat(300).getBytes(StandardCharsets.UTF_8);

    private HubScale() {}

    public static void main(String[] arguments) throws Exception {
        Path folder = Files.createTempDirectory("hub-scale");
        List<String> numbers = Arrays.stream(arguments)
                .skip(1)
                .takeWhile(one -> one.matches("\\d+"))
                .toList();
        List<String> more = List.of(arguments).subList(1 + numbers.size(), arguments.length);
        int first = Integer.parseInt(numbers.get(0));
        switch (arguments[0]) {
            case "arrive" -> arrive(folder, first, more);
            case "readers" -> readers(folder, first, more);
            case "history" -> history(folder, first, Integer.parseInt(numbers.get(1)), more);
            default -> throw new IllegalArgumentException(arguments[0]);
        }
    }

    private static void arrive(Path folder, int tests, List<String> more) throws Exception {
        AdapterRecorder recorder = recorder(folder);
        for (int i = 0; i < tests; i++) record(recorder, i, i % TESTS_AN_ATTACHMENT == 0);
        end(recorder);
        try (var hub = new StartedHub(folder.resolve("hub"), more)) {
            String token = hub.token("send");
            Duration before = hub.cpu();
            long from = System.nanoTime();
            SentRun sent = new RunSender(
                            new RunFolder(recorder.folder()),
                            new SendOptions(hub.address, StartedHub.PROJECT, "night", token, Duration.ofSeconds(60))
                                    .withAtOnce(8))
                    .send();
            double seconds = seconds(from);
            long waited = System.nanoTime();
            String page = "projects/" + StartedHub.PROJECT + "/runs/night/";
            String count = String.valueOf(tests);
            while (!hub.ask("GET", "projects/" + StartedHub.PROJECT + "/").contains(count + " test"))
                TimeUnit.MILLISECONDS.sleep(100);
            double listed = seconds(waited);
            TimeUnit.SECONDS.sleep(20); // its page is made meanwhile
            double[] opened = new double[5];
            for (int i = 0; i < opened.length; i++) {
                long asked = System.nanoTime();
                hub.ask("GET", page);
                hub.ask("GET", page + "data/run.js");
                opened[i] = seconds(asked) * 1_000;
            }
            System.out.printf(
                    Locale.ROOT,
                    "%,d tests, %,d files, %,d bytes: sent in %.1f s, whole: %s, in the list %.1f s later; opened 20 s later in %.0f ms (%s); hub %.1f s of CPU%n",
                    tests,
                    sent.files(),
                    sent.bytes(),
                    seconds,
                    sent.isWhole(),
                    listed,
                    Arrays.stream(opened).sorted().toArray()[opened.length / 2],
                    Arrays.toString(Arrays.stream(opened).mapToLong(Math::round).toArray()),
                    hub.cpu().minus(before).toMillis() / 1_000.0);
        }
    }

    private static void readers(Path folder, int readers, List<String> more) throws Exception {
        AdapterRecorder recorder = recorder(folder);
        record(recorder, 0, true);
        try (var hub = new StartedHub(folder.resolve("hub"), more)) {
            var options = new SendOptions(
                    hub.address, StartedHub.PROJECT, "night", hub.token("send"), Duration.ofSeconds(60));
            var isOver = new java.util.concurrent.atomic.AtomicBoolean();
            var sender = new Thread(() -> {
                try {
                    new RunSender(new RunFolder(recorder.folder()), options)
                            .follow(Duration.ofMinutes(10), isOver::get);
                } catch (Exception failed) {
                    System.out.println("not sent: " + failed);
                }
            });
            sender.start();
            String read = hub.token("read");
            URI events = hub.address.resolve("projects/" + StartedHub.PROJECT + "/runs/night/events");
            while (!hub.ask("GET", "projects/" + StartedHub.PROJECT + "/runs/night/")
                    .contains("passed")) Thread.onSpinWait();
            var last = new AtomicLongArray(readers);
            HttpClient client = HttpClient.newHttpClient();
            for (int i = 0; i < readers; i++) look(client, events, read, last, i);
            while (!hub.ask("GET", "metrics").contains("verbale_hub_streams " + readers + "\n")) Thread.onSpinWait();
            Duration before = hub.cpu();
            long from = System.nanoTime();
            int rounds = 20;
            double[] latencies = new double[rounds];
            for (int round = 0; round < rounds; round++) {
                long recorded = System.nanoTime();
                record(recorder, round + 1, false);
                while (!allAfter(last, recorded)) Thread.onSpinWait();
                latencies[round] = seconds(recorded) * 1_000;
                TimeUnit.MILLISECONDS.sleep(500);
            }
            Arrays.sort(latencies);
            System.out.printf(
                    Locale.ROOT,
                    "%,d readers of one run: all knew after %.0f ms at the median, %.0f ms at the most; hub %.2f processors%n",
                    readers,
                    latencies[rounds / 2],
                    latencies[rounds - 1],
                    hub.cpu().minus(before).toMillis() / 1_000.0 / seconds(from));
            isOver.set(true);
            sender.join();
        }
        System.exit(0); // readers that are cut off
    }

    private static boolean allAfter(AtomicLongArray last, long moment) {
        for (int i = 0; i < last.length(); i++) if (last.get(i) < moment) return false;
        return true;
    }

    private static void look(HttpClient client, URI events, String token, AtomicLongArray last, int index) {
        var request = HttpRequest.newBuilder(events)
                .header("Authorization", "Bearer " + token)
                .build();
        client.sendAsync(request, BodyHandlers.fromLineSubscriber(new Flow.Subscriber<>() {
            @Override
            public void onSubscribe(Flow.Subscription subscription) {
                subscription.request(Long.MAX_VALUE);
            }

            @Override
            public void onNext(String line) {
                if (line.startsWith("event: changed")) last.set(index, System.nanoTime());
            }

            @Override
            public void onError(Throwable cut) {}

            @Override
            public void onComplete() {}
        }));
    }

    private static void history(Path folder, int runs, int tests, List<String> more) throws Exception {
        String url = more.get(more.indexOf("--database") + 1);
        String user = System.getenv("VERBALE_HUB_DATABASE_USER");
        String password = System.getenv("VERBALE_HUB_DATABASE_PASSWORD");
        try (var made = new StartedHub(folder.resolve("made"), more)) {
            made.token("send"); // tables and project
        }
        var digests = new HistoryFolder(folder.resolve("digests"));
        try (Connection connection = DriverManager.getConnection(url, user, password);
                PreparedStatement insert = connection.prepareStatement(
                        "insert into verbale_hub.remembered (project_id, run, file, over, needs_attention, bytes)"
                                + " select id, ?, ?, ?, true, ? from verbale_hub.projects where name = '"
                                + StartedHub.PROJECT + "'")) {
            for (int run = 0; run < runs; run++) {
                Path file = digests.add(HistoryScale.digest(run, tests));
                insert.setString(1, "night-" + run);
                insert.setString(2, file.getFileName().toString());
                insert.setObject(3, OffsetDateTime.now());
                insert.setBytes(4, Files.readAllBytes(file));
                insert.executeUpdate();
                Files.delete(file);
            }
        }
        long from = System.nanoTime();
        try (var hub = new StartedHub(folder.resolve("hub"), more)) {
            String project = "projects/" + StartedHub.PROJECT + "/";
            String test =
                    project + "tests?key=" + URLEncoder.encode(HistoryScale.key(tests / 2), StandardCharsets.UTF_8);
            while (!hub.ask("GET", "api/v1/" + project + "history")
                    .lines()
                    .skip(runs - 1L)
                    .findAny()
                    .isPresent()) TimeUnit.MILLISECONDS.sleep(100);
            System.out.printf(Locale.ROOT, "%,d attempts: fetched in %.1f s%n", (long) runs * tests, seconds(from));
            for (String page : List.of(test, test, test, project + "reasons/reason3", project, "")) {
                long asked = System.nanoTime();
                int size = hub.ask("GET", page).length();
                System.out.printf(Locale.ROOT, "  %s: %.0f ms, %,d characters%n", page, seconds(asked) * 1_000, size);
            }
            System.out.printf(Locale.ROOT, "  hub %.1f s of CPU%n", hub.cpu().toMillis() / 1_000.0);
        }
    }

    private static AdapterRecorder recorder(Path folder) {
        return AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(folder.resolve("runs")).withSummaryLine(false));
    }

    private static void record(AdapterRecorder recorder, int i, boolean attaches) {
        Scope test = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("dev.orto.Area" + i % 400 + "Test.waters_" + i + "()", "waters bed " + i)
                        .className("dev.orto.Area" + i % 400 + "Test")
                        .build());
        recorder.log("watered bed " + i + " with 3 litres");
        if (attaches) recorder.attach("rota.csv", ATTACHMENT, MediaType.CSV);
        recorder.endTest(
                test, i % 500 == 499 ? TestEnd.threw(new AssertionError("bed " + i + " is dry")) : TestEnd.passed());
    }

    /** As a JVM closes its journal. */
    private static void end(AdapterRecorder recorder) throws IOException {
        Files.writeString(
                new RunFolder(recorder.folder()).journalFiles().get(0),
                "{\"event\":\"journal-ended\",\"at\":" + recorder.now() + ",\"missing\":0}\n",
                java.nio.file.StandardOpenOption.APPEND);
    }

    private static double seconds(long from) {
        return (System.nanoTime() - from) / 1e9;
    }
}
