package dev.verbale.logback;

import static org.assertj.core.api.Assertions.assertThat;

import ch.qos.logback.classic.LoggerContext;
import ch.qos.logback.classic.util.LogbackMDCAdapter;
import dev.verbale.Scope;
import dev.verbale.Verbale;
import dev.verbale.results.Entry;
import dev.verbale.results.RunReader;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.slf4j.MDC;

/** Log lines land on the step that runs, by configuration and by call. */
class VerbaleAppenderTest {

    @Test
    void a_line_is_on_its_step_with_all_that_the_logger_knew() throws Exception {
        AdapterRecorder recorder = AdapterRecorder.current();
        Scope test = recorder.startTest(
                recorder.run(), TestDescriptor.of("configured", "logs").build());
        Logger logger = LoggerFactory.getLogger("garden.gate");
        Verbale.step("Open", () -> {
            MDC.put("user", "ada");
            MDC.put("gateToken", "t0psecret");
            logger.info("plot {} opens", 12);
            logger.error("it squeaks, password=hunter2", new IllegalStateException("rust, password=hunter2"));
            MDC.clear();
            logger.debug("below the threshold of the configuration");
        });
        recorder.endTest(test, TestEnd.passed());

        var step = (Entry.StepEntry) entries("configured").get(0);
        assertThat(step.entries()).hasSize(2);
        var info = (Entry.LogEntry) step.entries().get(0);
        assertThat(List.of(info.level(), info.logger(), info.text()))
                .containsExactly("info", "garden.gate", "plot 12 opens");
        assertThat(info.thread()).as("the test's own").isNull();
        assertThat(info.context()).containsEntry("user", "ada").containsEntry("gateToken", "[masked]");
        var error = (Entry.LogEntry) step.entries().get(1);
        assertThat(error.level()).isEqualTo("error");
        assertThat(error.text()).isEqualTo("it squeaks, password=[masked]");
        assertThat(error.failure().message()).isEqualTo("rust, password=[masked]");
        assertThat(error.failure().stack()).doesNotContain("hunter2");
        assertThat(error.failure().stack()).contains("VerbaleAppenderTest.java");
    }

    @Test
    void one_call_installs_it_and_a_second_changes_nothing() throws Exception {
        var context = new LoggerContext();
        context.setMDCAdapter(new LogbackMDCAdapter());
        VerbaleAppender.install(context);
        VerbaleAppender.install(context);
        AdapterRecorder recorder = AdapterRecorder.current();
        Scope test = recorder.startTest(
                recorder.run(), TestDescriptor.of("installed", "logs").build());
        context.getLogger("garden").warn("it rains");
        recorder.endTest(test, TestEnd.passed());

        assertThat(entries("installed"))
                .singleElement()
                .satisfies(entry -> assertThat(((Entry.LogEntry) entry).text()).isEqualTo("it rains"));
    }

    private static List<Entry> entries(String key) throws IOException {
        return RunReader.read(Path.of(System.getProperty("verbale.root"))).tests().stream()
                .filter(test -> test.key().equals(key))
                .findFirst()
                .orElseThrow()
                .entries();
    }
}
