package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import ch.qos.logback.classic.Logger;
import ch.qos.logback.classic.LoggerContext;
import com.sun.net.httpserver.HttpServer;
import dev.verbale.Scope;
import dev.verbale.otlp.RunTelemetry;
import dev.verbale.report.Page;
import dev.verbale.results.Entry;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.results.brief.BriefOptions;
import dev.verbale.results.brief.FailureBrief;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.testing.Jvm;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Map;
import java.util.zip.GZIPInputStream;
import org.apache.logging.log4j.LogManager;
import org.apache.logging.log4j.MarkerManager;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.slf4j.LoggerFactory;
import org.slf4j.MarkerFactory;

/** A marker, from the call of a logger to wherever a line is shown. */
class MarkerTest {

    @TempDir
    static Path root;

    /** A suite that marks lines, in a JVM of its own. */
    public static final class Marking {
        public static void main(String[] none) {
            dev.verbale.logback.VerbaleAppender.install((LoggerContext) LoggerFactory.getILoggerFactory());
            dev.verbale.log4j.VerbaleAppender.install(
                    (org.apache.logging.log4j.core.LoggerContext) LogManager.getContext(false));
            AdapterRecorder recorder = AdapterRecorder.current();
            Scope test = recorder.startTest(
                    recorder.run(), TestDescriptor.of("k", "opens the gate").build());
            Logger logback = (Logger) LoggerFactory.getLogger("orto.gate");
            logback.atWarn()
                    .addMarker(MarkerFactory.getMarker("AUDIT"))
                    .addMarker(MarkerFactory.getMarker("password=hunter2"))
                    .log("the gate opens");
            logback.warn("it squeaks");
            LogManager.getLogger("orto.shed").error(MarkerManager.getMarker("SECURITY"), "the shed is open");
            recorder.endTest(test, TestEnd.threw(new AssertionError("shut")));
        }
    }

    private static Run run() throws Exception {
        Jvm marking = Jvm.java(Map.of("VERBALE_ROOT", root.toString()), root, Marking.class.getName());
        assertThat(marking.code()).as(marking.output()).isZero();
        return RunReader.read(root);
    }

    @Test
    void a_marker_is_recorded_and_shown_wherever_its_line_is() throws Exception {
        Run run = run();
        TestResult test = run.tests().get(0);

        assertThat(test.entries())
                .filteredOn(Entry.LogEntry.class::isInstance)
                .extracting(entry -> ((Entry.LogEntry) entry).written().marker())
                .containsExactly("AUDIT, password=[masked]", null, "SECURITY");
        String brief = FailureBrief.of(
                        run,
                        test,
                        FailureReason.byTest(FailureReason.of(run)).get(test.id()),
                        BriefOptions.longest(5_000))
                .text();
        assertThat(brief)
                .contains("warn: [AUDIT, password=[masked]] the gate opens", "warn: it squeaks", "error: [SECURITY]");
        Path page = Page.write(run, root.resolve("page"));
        assertThat(Files.readString(page.resolveSibling("data").resolve("tests/0.js")))
                .contains("\"marker\":\"SECURITY\",\"text\":\"the shed is open\"");
        assertThat(sent(run)).contains("verbale.marker", "AUDIT, password=[masked]", "SECURITY");
    }

    /** What a collector of traces is sent, which has texts as they are. */
    private static String sent(Run run) throws Exception {
        var all = new StringBuffer();
        var collector = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        collector.createContext("/", exchange -> {
            byte[] unpacked = new GZIPInputStream(exchange.getRequestBody()).readAllBytes();
            all.append(new String(unpacked, StandardCharsets.ISO_8859_1));
            exchange.sendResponseHeaders(200, -1);
            exchange.close();
        });
        collector.start();
        try {
            var address =
                    URI.create("http://localhost:" + collector.getAddress().getPort());
            new RunTelemetry(address, Map.of(), Duration.ofSeconds(30)).send(run);
        } finally {
            collector.stop(0);
        }
        return all.toString();
    }
}
