package dev.verbale.results;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.event.Failure;
import java.util.List;
import org.junit.jupiter.api.Test;

/** What is said of a failure beside its message. */
class BesideFailureTest {

    private static Failure failure(Throwable thrown, Failure... gathered) {
        var stack = new java.io.StringWriter();
        thrown.printStackTrace(new java.io.PrintWriter(stack));
        return Failure.of(thrown.getClass().getName(), stack.toString())
                .message(thrown.getMessage())
                .gathered(List.of(gathered))
                .build();
    }

    @Test
    void where_it_began_is_told_and_what_the_message_repeats_is_not() {
        var cause = new IllegalStateException("the shed is locked");

        assertThat(BesideFailure.lines(failure(new ExceptionInInitializerError(cause)), 5))
                .containsExactly("caused by java.lang.IllegalStateException: the shed is locked");
        assertThat(BesideFailure.lines(failure(new RuntimeException(cause)), 5))
                .as("its message is the cause")
                .isEmpty();
        assertThat(BesideFailure.lines(failure(new RuntimeException("no water", new NullPointerException())), 5))
                .containsExactly("caused by java.lang.NullPointerException");
    }

    @Test
    void what_was_suppressed_and_what_failed_with_it_is_told_as_far_as_there_is_room() {
        var thrown = new AssertionError("the bed is dry");
        thrown.addSuppressed(new IllegalStateException("no brush", new java.io.IOException("not this")));
        thrown.addSuppressed(new IllegalStateException("the bed is dry"));
        Failure[] gathered = {
            Failure.of("E", "").message("one").build(),
            Failure.of("E", "").message("two").build()
        };

        assertThat(BesideFailure.lines(failure(thrown, gathered), 5))
                .containsExactly("suppressed java.lang.IllegalStateException: no brush", "and: one", "and: two");
        assertThat(BesideFailure.lines(failure(thrown, gathered), 1))
                .containsExactly("suppressed java.lang.IllegalStateException: no brush", "and 2 more failures");
    }
}
