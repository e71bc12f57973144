package dev.verbale.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.cli.StayingJvm.Output;
import dev.verbale.results.RunReader;
import dev.verbale.results.SampleRun;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.sending.HubProject;
import dev.verbale.sending.SendOptions;
import dev.verbale.testing.Jvm;
import dev.verbale.vocabulary.Outcome;
import java.io.BufferedReader;
import java.io.File;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/** The commands of a hub as one types them: it starts, gives tokens, is sent runs, shows them, ends. */
@Timeout(120)
class HubCommandTest {

    @TempDir
    static Path work;

    private static Process hub;
    private static String address;
    private static String first;
    private static final Map<String, StayingJvm> byToken = new HashMap<>();

    @BeforeAll
    static void start() throws Exception {
        hub = new ProcessBuilder(Jvm.command(
                        List.of(),
                        Jvm.classPath(),
                        Main.class,
                        "hub",
                        "--folder",
                        work.resolve("hub").toString(),
                        "--objects",
                        work.resolve("objects").toString(),
                        "--trusted-proxy",
                        "127.0.0.1",
                        "--person-header",
                        "X-Gardener",
                        "--lake",
                        work.resolve("lake").toString(),
                        "--log-requests",
                        "--port",
                        "0"))
                .redirectError(work.resolve("log.jsonl").toFile())
                .start();
        BufferedReader lines = hub.inputReader();
        address = lines.readLine().replaceFirst("The hub is at ", "");
        first = lines.readLine().replaceFirst("A token .*: ", "");
    }

    @AfterAll
    static void stop() throws Exception {
        for (StayingJvm jvm : byToken.values()) jvm.close();
        hub.destroy();
        hub.waitFor();
    }

    private Output run(String token, String... arguments) throws Exception {
        StayingJvm jvm = byToken.get(token);
        if (jvm == null) byToken.put(token, jvm = new StayingJvm(work, hubAs("orto", token)));
        return jvm.run(arguments);
    }

    private static Map<String, String> hubAs(String project, String token) {
        return Map.of("VERBALE_HUB", address, "VERBALE_HUB_PROJECT", project, "VERBALE_HUB_TOKEN", token);
    }

    private int status(String token, String path) throws Exception {
        return HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(address + path))
                                .header("Authorization", "Bearer " + token)
                                .build(),
                        BodyHandlers.ofString())
                .statusCode();
    }

    @Test
    void a_lake_without_its_engine_is_refused_before_anybody_is_served() throws Exception {
        String without = Arrays.stream(Jvm.classPath().split(File.pathSeparator))
                .filter(jar -> !jar.contains("duckdb"))
                .collect(Collectors.joining(File.pathSeparator));
        Process refused = new ProcessBuilder(Jvm.command(
                        List.of(),
                        without,
                        Main.class,
                        "hub",
                        "--port",
                        "0",
                        "--folder",
                        work.resolve("none").toString(),
                        "--lake",
                        "lake"))
                .redirectErrorStream(true)
                .start();
        String output = new String(refused.getInputStream().readAllBytes(), StandardCharsets.UTF_8);

        assertThat(refused.waitFor()).as(output).isEqualTo(ExitCodes.NOT_WRITTEN);
        assertThat(output)
                .contains("the hub did not start", "needs the engine DuckDB")
                .doesNotContain("\tat ");
        assertThat(work.resolve("none")).doesNotExist();
    }

    @Test
    void a_team_gets_its_tokens_sends_a_run_and_sees_it() throws Exception {
        SampleRun.in(work.resolve("other"), "2026-11-30_120000_aaaa")
                .test("swaps", Outcome.PASSED, null)
                .read();
        String send = run(first, "hub", "token", "--role", "send", "--label", "CI of Orto")
                .out()
                .strip();
        String read = run(first, "hub", "token", "--role", "read", "--label", "Ada")
                .out()
                .strip();

        Output sent = run(send, "hub", "send", "other", "--follow", "--silence", "0");

        assertThat(sent.err()).isEmpty();
        assertThat(sent.out())
                .isEqualTo("2 files of 2026-11-30_120000_aaaa at " + address
                        + "projects/orto/runs/2026-11-30_120000_aaaa/\n");
        assertThat(sent.code()).isZero();
        assertThat(status(read, "projects/orto/")).isEqualTo(200);
        Path day = work.resolve("lake/manifest/project=orto/day=2026-11-24.json");
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(30);
        while (!Files.exists(day) && System.nanoTime() < end) LockSupport.parkNanos(20_000_000);
        assertThat(day).content().contains("run_id"); // the first run of this project, whichever test sent it
        assertThat(run(first, "hub", "keep", "--keep-days", "30", "--max-size", "50GB")
                        .out())
                .isEqualTo("days: 30\nmax-bytes: 50000000000\n");
        assertThat(run(read, "hub", "keep").out()).startsWith("days: 30\n");
        assertThat(run(read, "hub", "keep", "--all").err()).contains("403 this needs the role administer");
        assertThat(run(first, "hub", "keep", "--all").out()).isEqualTo("all runs stay\n");
        assertThat(run(first, "hub", "keep", "--max-size", "much").code()).isEqualTo(ExitCodes.USAGE);
        assertThat(run(first, "hub", "person", "--name", "ada@orto.example", "--role", "label")
                        .out())
                .isEqualTo("ada@orto.example may label\n");
        assertThat(run(first, "hub", "person", "--name", "ada@orto.example", "--end")
                        .out())
                .isEqualTo("ada@orto.example may do nothing any more\n");
        assertThat(run(first, "hub", "person", "--name", "ada@orto.example", "--end")
                        .err())
                .contains("404 ada@orto.example may do nothing here");
        assertThat(run(first, "hub", "token", "--end", "--label", "Ada").out()).isEqualTo("1 ended\n");
        assertThat(status(read, "projects/orto/")).isEqualTo(401);
    }

    @Test
    void a_person_whom_the_proxy_names_is_known_and_no_secret_is_in_the_log() throws Exception {
        run(first, "hub", "token", "--role", "send", "--label", "proxied");
        run(first, "hub", "person", "--name", "bea@orto.example", "--role", "read");
        for (String header : List.of("X-Gardener", "X-Forwarded-User")) {
            int answer = HttpClient.newHttpClient()
                    .send(
                            HttpRequest.newBuilder(URI.create(address + "projects/orto/?token=" + first))
                                    .header(header, "bea@orto.example")
                                    .build(),
                            BodyHandlers.ofString())
                    .statusCode();
            assertThat(answer).as(header).isEqualTo(header.equals("X-Gardener") ? 200 : 401);
        }
        assertThat(status("guess-of-somebody", "projects/orto/")).isEqualTo(401);

        List<String> log = Files.readAllLines(work.resolve("log.jsonl"));
        assertThat(log)
                .hasSizeGreaterThan(4)
                .allSatisfy(line -> assertThat(line).startsWith("{").endsWith("}"));
        assertThat(String.join("\n", log))
                .contains("\"path\":\"\\/projects\\/orto\\/\"", "\"status\":\"401\"")
                .doesNotContain(first, "guess-of-somebody", "bea@orto.example");
        assertThat(work.resolve("objects")).isDirectory();
    }

    @Test
    void what_a_hub_cannot_do_is_an_error_that_names_it() throws Exception {
        for (String[] wrong : new String[][] {
            {"--objects", "gs://orto", "s3://BUCKET/PREFIX"},
            {"--objects", "s3://X/y", "cannot be the name of a bucket"},
            {"--database", "mysql://db", "no address of a PostgreSQL database"},
            {"--openid-issuer", "login", "no address of a server"},
            {"--openid-issuer", "https://login.orto.example", "asks for a client and its secret"},
            {"--public-address", "ftp://orto.example", "no address of a server"},
            {"--trusted-proxy", "no.such.host.invalid", "there is no address"},
            {"--keystore", "none.p12", "none.p12 cannot be used"}
        }) {
            Output got = run(
                    first,
                    "hub",
                    "--port",
                    "0",
                    "--folder",
                    work.resolve("wrong").toString(),
                    wrong[0],
                    wrong[1]);
            assertThat(got.err())
                    .as(wrong[0] + " " + wrong[1])
                    .contains(wrong[2])
                    .doesNotContain("\tat ");
            assertThat(got.code()).isIn(ExitCodes.USAGE, ExitCodes.NOT_WRITTEN);
        }
    }

    @Test
    void what_cannot_be_sent_is_no_success() throws Exception {
        SampleRun.in(work.resolve("target/verbale"), "run")
                .test("swaps", Outcome.PASSED, null)
                .read();
        Output refused = run("guess", "hub", "send");
        assertThat(refused.code()).isEqualTo(ExitCodes.NOT_WRITTEN);
        assertThat(refused.err())
                .contains("was not sent", "401 there is no such token")
                .doesNotContain("guess");

        String send = run(first, "hub", "token", "--role", "send", "--label", "CI")
                .out()
                .strip();
        assertThat(run(send, "hub", "token", "--role", "read", "--label", "x").code())
                .isEqualTo(ExitCodes.USAGE);
        assertThat(run(send, "hub", "send", "--project", "../x").err()).contains("cannot be the name of a project");
        assertThat(run(send, "hub", "send", "--hub", "file:/etc").err()).contains("is no address of a hub");
        assertThat(run(send, "hub", "send", "--hub", "http://127.0.0.1:1", "--patience", "1")
                        .err())
                .contains("cannot be reached", "goes on where it ended");
        run(send, "hub", "send");
        Path journal = work.resolve("target/verbale/run/journals/worker-1.jsonl");
        Files.writeString(journal, Files.readString(journal).replace("swaps", "sweps"));
        Output changed = run(send, "hub", "send");
        assertThat(changed.code()).isEqualTo(ExitCodes.NOT_WRITTEN);
        assertThat(changed.err())
                .contains("Not there as it is here: journals/worker-1.jsonl: has another content there");
    }

    @Test
    void what_people_know_and_what_the_hub_remembers_is_what_each_command_says() throws Exception {
        Path runs = work.resolve("suite/target/verbale");
        for (String night : List.of("2026-11-28_220000_aaaa", "2026-11-29_220000_bbbb"))
            SampleRun.in(runs, night)
                    .test("swaps", Outcome.FAILED, SampleRun.failure("java.lang.AssertionError", "weeds in bed 3"))
                    .test("digs", Outcome.PASSED, null)
                    .read();
        String send = run(first, "hub", "token", "--project", "suite", "--role", "send", "--label", "CI of it")
                .out()
                .strip();
        String label = run(first, "hub", "token", "--project", "suite", "--role", "label", "--label", "Ada Rossi")
                .out()
                .strip();
        String newest = runs.resolve("2026-11-29_220000_bbbb").toString();
        String reason = FailureReason.of(RunReader.read(Path.of(newest))).get(0).id();
        new HubProject(new SendOptions(URI.create(address), "suite", null, label, Duration.ofSeconds(20)))
                .know(reason, Map.of("label", "seeds team", "owner", "Bruno"));
        Files.writeString(work.resolve("verbale-rules.yaml"), "gate: {unlabelled: 0}");
        try (var ci = new StayingJvm(work, hubAs("suite", send))) {
            for (String night : List.of("2026-11-28_220000_aaaa", "2026-11-29_220000_bbbb"))
                assertThat(ci.run("hub", "send", runs.resolve(night).toString()).code())
                        .isZero();
            assertThat(ci.run("failures", "--by-label", newest).out()).contains("seeds team, owner Bruno");
            assertThat(ci.run("failures", newest).out()).contains("seeds team, owner Bruno");
            assertThat(ci.run("gate", newest).out()).contains("The gate is open.");
            assertThat(ci.run("history", "test", "swaps").out()).contains("FF  2 runs");
        }
        try (var away = new StayingJvm(
                work,
                Map.of(
                        "VERBALE_HUB",
                        "http://127.0.0.1:1",
                        "VERBALE_HUB_PROJECT",
                        "suite",
                        "VERBALE_HUB_TOKEN",
                        send))) {
            Output labels = away.run("failures", "--by-label", newest);
            assertThat(labels.err()).contains("cannot be reached", "what its people know is left out");
            assertThat(labels.code()).isZero();
            Output gate = away.run("gate", newest);
            assertThat(gate.code()).isEqualTo(ExitCodes.NOT_WRITTEN);
            assertThat(gate.err()).contains("the gate was not judged", "cannot be reached");
            assertThat(away.run("history", "test", "swaps").out())
                    .as("as it was asked last")
                    .contains("FF  2 runs");
        }
    }
}
