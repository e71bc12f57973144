package dev.verbale.spi;

import dev.verbale.Step;
import java.time.Duration;

/**
 * A step that an adapter began, with the ends that only adapters need.
 *
 * <pre>{@code
 * AdapterStep step = Capture.current().startStep(StepKind.BROWSER, "Open the rota");
 * try {
 *     rotaPage.open();
 *     step.passed();
 * } catch (RuntimeException unknown) {
 *     step.failedWithoutEvidence(unknown); // whoever called may catch it
 *     throw unknown;
 * }
 * }</pre>
 *
 * @since 0.2.0
 */
public interface AdapterStep extends Step {

    /** One that is not recorded. */
    AdapterStep NONE = new AdapterStep() {
        @Override
        public void passed() {}

        @Override
        public void failed(Throwable failure) {}

        @Override
        public void failedWithoutEvidence(Throwable failure) {}

        @Override
        public void skipped(String reason) {}

        @Override
        public AdapterStep at(long micros) {
            return this;
        }

        @Override
        public AdapterStep within(Duration budget) {
            return this;
        }

        @Override
        public void close() {}
    };

    /** The step threw {@code failure}, and whoever called it may well catch that: no evidence is captured. */
    void failedWithoutEvidence(Throwable failure);

    /**
     * Its end, which is recorded next, was at {@code micros} of the recorder's clock, and is only known now. An adapter notices
     * that a wait is over when the next thing begins. Only of a step that overlaps others; of any other it says nothing.
     */
    AdapterStep at(long micros);

    @Override
    AdapterStep within(Duration budget);
}
