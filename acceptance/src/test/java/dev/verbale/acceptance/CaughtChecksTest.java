package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.hamcrest.Matchers.equalTo;
import static org.junit.jupiter.api.Assertions.assertAll;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.platform.engine.discovery.DiscoverySelectors.selectClass;

import com.sun.net.httpserver.HttpServer;
import dev.verbale.Verbale;
import dev.verbale.assertj.VerbaleAssertJ;
import dev.verbale.hostile.ByNight;
import dev.verbale.restassured.VerbaleFilter;
import dev.verbale.results.Entry;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.testing.Jvm;
import dev.verbale.vocabulary.Outcome;
import io.restassured.RestAssured;
import io.restassured.response.Response;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Collectors;
import org.assertj.core.api.SoftAssertions;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.platform.engine.TestExecutionResult;
import org.junit.platform.engine.support.descriptor.MethodSource;
import org.junit.platform.launcher.TestExecutionListener;
import org.junit.platform.launcher.TestIdentifier;
import org.junit.platform.launcher.core.LauncherDiscoveryRequestBuilder;
import org.junit.platform.launcher.core.LauncherFactory;

/** What a check throws into a test is the test's to catch: watched, each test ends as it does bare. */
class CaughtChecksTest {

    private static final String WATCHED = "watched.checks";

    @TempDir
    Path root;

    @Test
    @ByNight
    void a_test_that_catches_what_a_check_throws_ends_as_it_does_unwatched() throws Exception {
        Map<String, String> bare = outcomes("bare", false);
        Map<String, String> watched = outcomes("watched", true);

        assertThat(watched).isEqualTo(bare);
        assertThat(bare.values()).contains("SUCCESSFUL", "FAILED");
        Run run = RunReader.read(root.resolve("watched"));
        assertThat(run.tests().stream()
                        .collect(Collectors.toMap(
                                test -> test.methodName(),
                                test -> test.outcome().equals(Outcome.PASSED) ? "SUCCESSFUL" : "FAILED")))
                .as("recorded")
                .isEqualTo(bare);
        assertThat(run.tests().stream()
                        .flatMap(test -> test.entries().stream())
                        .filter(entry -> entry instanceof Entry.CheckEntry check
                                && check.outcome().equals(Outcome.FAILED)))
                .as("each is recorded, caught or not")
                .hasSizeGreaterThan(8);
    }

    private Map<String, String> outcomes(String name, boolean watched) throws IOException, InterruptedException {
        Jvm jvm = Jvm.java(
                Map.of(),
                Path.of("").toAbsolutePath(),
                "-Dverbale.root=" + root.resolve(name),
                "-Dverbale.enabled=" + watched,
                "-D" + WATCHED + "=" + watched,
                CaughtChecksTest.class.getName());
        Map<String, String> outcomes = new TreeMap<>();
        jvm.output()
                .lines()
                .filter(line -> line.startsWith("> "))
                .forEach(line -> outcomes.put(line.split(" ")[1], line.split(" ")[2]));
        assertThat(outcomes).as(jvm.output()).isNotEmpty();
        return outcomes;
    }

    /** Runs the suite and says how each test ended. */
    public static void main(String[] arguments) {
        LauncherFactory.create()
                .execute(
                        LauncherDiscoveryRequestBuilder.request()
                                .selectors(selectClass(Suite.class))
                                .build(),
                        new TestExecutionListener() {
                            @Override
                            public void executionFinished(TestIdentifier one, TestExecutionResult result) {
                                if (one.getSource().orElse(null) instanceof MethodSource method)
                                    System.out.println("> " + method.getMethodName() + " " + result.getStatus());
                            }
                        });
        System.exit(0);
    }

    /** Tests that catch what is thrown at them, or do not. */
    static class Suite {
        private static final boolean IS_WATCHED = Boolean.getBoolean(WATCHED);

        private final AtomicInteger ripe = new AtomicInteger();

        private HttpServer server;

        @BeforeEach
        void open() throws IOException {
            server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
            server.createContext("/", exchange -> {
                byte[] body = ("{\"ripe\":" + ripe.incrementAndGet() + "}").getBytes(StandardCharsets.UTF_8);
                exchange.getResponseHeaders().add("Content-Type", "application/json");
                exchange.sendResponseHeaders(200, body.length);
                exchange.getResponseBody().write(body);
                exchange.close();
            });
            server.start();
        }

        @AfterEach
        void close() {
            server.stop(0);
        }

        private Response response() {
            var given = RestAssured.given();
            if (IS_WATCHED) given = given.filter(new VerbaleFilter().recordingChecks());
            return given.get("http://127.0.0.1:" + server.getAddress().getPort());
        }

        private void isRipe(int expected) {
            response().then().statusCode(200).body("ripe", equalTo(expected));
        }

        private interface Attempt {
            void run() throws Exception;
        }

        /** As a wait does: until it holds, or so many times. */
        private static void eventually(int times, Attempt attempt) throws Exception {
            for (int i = 1; ; i++) {
                try {
                    attempt.run();
                    return;
                } catch (AssertionError tooEarly) {
                    if (i == times) throw tooEarly;
                }
            }
        }

        private static SoftAssertions softly() {
            var softly = new SoftAssertions();
            return IS_WATCHED ? VerbaleAssertJ.watch(softly) : softly;
        }

        @Test
        void poll_until_it_holds() throws Exception {
            eventually(5, () -> isRipe(3));
        }

        @Test
        void poll_in_vain() throws Exception {
            eventually(2, () -> isRipe(99));
        }

        @Test
        void expect_that_it_fails() {
            assertThrows(AssertionError.class, () -> isRipe(99));
            assertThatThrownBy(() -> isRipe(99)).isInstanceOf(AssertionError.class);
        }

        @Test
        void expect_in_vain_that_it_fails() {
            assertThrows(AssertionError.class, () -> isRipe(1));
        }

        @Test
        void nested_groups_that_fail() {
            assertAll(() -> isRipe(99), () -> assertAll(() -> isRipe(99), () -> isRipe(3)));
        }

        @Test
        void nested_groups_that_are_expected_to_fail() {
            assertThrows(AssertionError.class, () -> assertAll(() -> isRipe(99), () -> assertAll(() -> isRipe(98))));
        }

        @Test
        void soft_ones_in_a_poll() throws Exception {
            eventually(5, () -> {
                SoftAssertions softly = softly();
                softly.assertThat(ripe.incrementAndGet()).isEqualTo(3);
                softly.assertThat(ripe.get()).isGreaterThan(2);
                softly.assertAll();
            });
        }

        @Test
        void soft_ones_that_fail() {
            SoftAssertions softly = softly();
            softly.assertThat(1).isEqualTo(2);
            softly.assertThat(1).isEqualTo(3);
            softly.assertAll();
        }

        @Test
        void soft_ones_that_nobody_asks() {
            softly().assertThat(1).isEqualTo(2);
        }

        @Test
        void a_step_that_tries_again() throws Exception {
            eventually(5, () -> Verbale.step("See whether it is ripe", () -> isRipe(2)));
        }

        @Test
        void a_test_that_catches() {
            try {
                isRipe(99);
            } catch (AssertionError expected) {
                assertThat(expected).hasMessageContaining("ripe");
            }
        }
    }
}
