package dev.orto.nights;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.history.History;
import dev.verbale.history.TestHistory;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.results.SampleRun;
import dev.verbale.vocabulary.Outcome;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class MadeUpNightsTest {

    @TempDir
    Path folder;

    @Test
    void the_past_is_marked_always_the_same_and_has_something_to_show() throws Exception {
        RunDigest today = RunDigest.of(SampleRun.in(folder, "2026-11-24_103107_k3f9")
                .test("swaps", Outcome.FAILED, SampleRun.failure("E", "Dario waters twice"))
                .test("total", Outcome.FAILED, SampleRun.failure("E", "the total is cut"))
                .test("loan", Outcome.FAILED, SampleRun.failure("E", "no sachet"))
                .test("steady", Outcome.PASSED, null)
                .test("flickers", Outcome.ERRORED, SampleRun.failure("E", "cold"))
                .test("flickers", Outcome.PASSED, null)
                .test("readsCompost", Outcome.PASSED, null)
                .read());

        List<RunDigest> nights = MadeUpNights.before(today);

        assertThat(nights).hasSize(40).allMatch(RunDigest::isMadeUp).isEqualTo(MadeUpNights.before(today));
        List<RunDigest> all = new ArrayList<>(nights);
        all.add(today);
        History history = History.of(all);
        assertThat(row(history, "swaps")).endsWith(".FFFFFFFFFF");
        assertThat(row(history, "total")).contains(".FFFFFFFF.").endsWith(".F");
        assertThat(row(history, "steady")).matches("\\.+");
        assertThat(history.flaky(9)).extracting(TestHistory::key).contains("sample.flickers()");
        assertThat(History.of(nights).slower(9)).extracting(TestHistory::key).contains("sample.readsCompost()");
        assertThat(history.runs())
                .filteredOn(run -> run.branch().equals("rota-redesign"))
                .hasSize(6);
    }

    private static String row(History history, String name) {
        return history.test("sample." + name + "()").orElseThrow().row();
    }
}
