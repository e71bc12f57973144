package dev.verbale.steps;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.Scope;
import dev.verbale.results.Entry;
import dev.verbale.results.RunReader;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInfo;

/** Methods become steps without a change where they are called. */
class StepMethodsTest {

    /** A page object as somebody wrote it, without a constructor that takes nothing. */
    static class RotaPage {
        private final List<String> done;

        RotaPage(List<String> done) {
            if (done == null) throw new IllegalArgumentException("a page needs its driver");
            this.done = done;
        }

        @StepMethod("Swap {0} with {1}")
        int swap(String first, int second) {
            done.add(first + second);
            return done.size();
        }

        @StepMethod
        protected void waitForRain() throws IOException {
            throw new IOException("drought");
        }

        @StepMethod(value = "Unlock with {0}", secret = 0)
        public void unlock(String code) {
            done.add(code);
        }

        String heading() {
            return "Rota";
        }
    }

    /** Nobody can make a subclass of it. */
    static final class Closed {
        @StepMethod
        String say() {
            return "closed";
        }
    }

    private final List<String> done = new ArrayList<>();
    private final RotaPage page = StepMethods.of(new RotaPage(done));
    private String key;
    private Scope test;

    @BeforeEach
    void begin(TestInfo info) {
        key = info.getDisplayName();
        AdapterRecorder recorder = AdapterRecorder.current();
        test = recorder.startTest(recorder.run(), TestDescriptor.of(key, key).build());
    }

    @AfterEach
    void end() {
        AdapterRecorder.current().endTest(test, TestEnd.passed());
    }

    @Test
    void a_call_is_a_step_in_words_and_does_what_it_did() throws Exception {
        assertThat(page.swap("Monday", 7)).isEqualTo(1);
        assertThat(page.heading()).isEqualTo("Rota");

        assertThat(done).containsExactly("Monday7");
        assertThat(steps()).containsExactly("Swap Monday with 7 passed");
    }

    @Test
    void an_exception_is_the_originals_own() throws Exception {
        assertThatThrownBy(page::waitForRain).isInstanceOf(IOException.class).hasMessage("drought");

        assertThat(steps()).containsExactly("wait for rain errored");
    }

    @Test
    void a_secret_argument_is_masked_and_stays_so() throws Exception {
        page.unlock("beetroot-42");
        AdapterRecorder.current().log("the code was beetroot-42");

        assertThat(done).containsExactly("beetroot-42");
        assertThat(steps()).containsExactly("Unlock with [masked] passed");
        Path journal = RunReader.find(root()).path().resolve("journals/worker-1.jsonl");
        assertThat(Files.readString(journal)).doesNotContain("beetroot");
    }

    @Test
    void what_cannot_be_recorded_as_steps_works_as_before_and_says_why() throws Exception {
        Closed closed = new Closed();

        assertThat(StepMethods.of(closed)).isSameAs(closed);

        assertThat(entries())
                .singleElement()
                .satisfies(entry -> assertThat(((Entry.LogEntry) entry).text())
                        .contains("Closed has no steps of its methods: the class is final"));
    }

    private static Path root() {
        return Path.of(System.getProperty("verbale.root"));
    }

    private List<Entry> entries() throws IOException {
        return RunReader.read(root()).tests().stream()
                .filter(result -> result.key().equals(key))
                .findFirst()
                .orElseThrow()
                .entries();
    }

    private List<String> steps() throws IOException {
        return entries().stream()
                .filter(entry -> entry instanceof Entry.StepEntry)
                .map(entry -> ((Entry.StepEntry) entry).name() + " "
                        + ((Entry.StepEntry) entry).outcome().word())
                .toList();
    }
}
