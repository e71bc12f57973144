package dev.orto.gate;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.event.ExchangeMade;
import dev.verbale.results.Entry.ExchangeEntry;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class VerbaleGateTest {

    @TempDir
    Path root;

    interface Use {
        void of(Gate gate) throws Exception;
    }

    @Test
    void what_the_gate_is_asked_and_what_it_replies_is_an_exchange_without_the_code() throws Exception {
        Run run = recorded(Map.of(), gate -> assertThat(gate.ask("OPEN 4711")).isEqualTo("OPENED"));

        ExchangeMade exchange = exchange(run);
        assertThat(exchange.request().method()).isEqualTo("OPEN");
        assertThat(exchange.request().url()).startsWith("tcp://127.0.0.1:");
        assertThat(exchange.request().body().text()).isEqualTo("OPEN #");
        assertThat(exchange.response().body().text()).isEqualTo("OPENED");
        assertThat(run.problems()).isEmpty();
    }

    @Test
    void its_own_setting_has_codes_recorded() throws Exception {
        Run run = recorded(Map.of("verbale.gate.codes", "true"), gate -> gate.ask("OPEN 4712"));

        assertThat(exchange(run).request().body().text()).isEqualTo("OPEN 4712");
        assertThat(run.problems()).isEmpty();
    }

    @Test
    void a_value_that_its_setting_does_not_allow_is_a_problem_of_the_run() throws Exception {
        Run run = recorded(Map.of("verbale.gate.codes", "perhaps"), gate -> gate.ask("OPEN 4712"));

        assertThat(exchange(run).request().body().text()).isEqualTo("OPEN #");
        assertThat(run.problems()).singleElement().asString().contains("verbale.gate.codes", "perhaps");
    }

    @Test
    void what_the_gate_throws_is_thrown_and_recorded() throws Exception {
        Run run = recorded(Map.of(), gate -> assertThatThrownBy(() -> gate.ask("CLOSE"))
                .isInstanceOf(IOException.class)
                .hasMessage("the gate hung up"));

        assertThat(exchange(run).failure()).contains("the gate hung up");
    }

    private Run recorded(Map<String, String> settings, Use use) throws Exception {
        var options = RecorderOptions.defaults()
                .withRoot(root)
                .withSummaryLine(false)
                .withSettings(settings);
        AdapterRecorder recorder = AdapterRecorder.open(options);
        try (var server = new GateServer()) {
            Scope test = recorder.startTest(
                    recorder.run(), TestDescriptor.of("GateTest.opens()", "opens").className("GateTest").methodName("opens").build());
            use.of(VerbaleGate.watch(server.client(), recorder));
            recorder.endTest(test, TestEnd.passed());
        }
        return RunReader.read(root);
    }

    private static ExchangeMade exchange(Run run) {
        return ((ExchangeEntry) run.tests().get(0).entries().get(0)).made();
    }
}
