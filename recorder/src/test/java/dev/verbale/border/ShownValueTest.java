package dev.verbale.border;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.function.Supplier;
import org.junit.jupiter.api.Test;

/** Values as texts: the same in each run, where the value is the same. */
class ShownValueTest {

    private static final class Bed {}

    @Test
    void arrays_are_shown_by_what_they_hold() {
        assertThat(ShownValue.of(new int[] {1, 2})).isEqualTo("[1, 2]");
        assertThat(ShownValue.of(new byte[0])).isEqualTo("[]");
        assertThat(ShownValue.of(new Object[] {"Kale", new long[] {7}, null})).isEqualTo("[Kale, [7], null]");
        Object[] itself = new Object[1];
        itself[0] = itself;
        assertThat(ShownValue.of(itself)).contains("[...]");
    }

    @Test
    void an_object_without_a_text_is_shown_by_its_class_and_others_as_they_say() {
        Supplier<String> lambda = () -> "x";

        assertThat(ShownValue.of(new Bed())).isEqualTo("ShownValueTest$Bed");
        assertThat(ShownValue.of(new Object[] {new Bed(), new Object[] {new Bed()}}))
                .isEqualTo("[ShownValueTest$Bed, [ShownValueTest$Bed]]");
        assertThat(ShownValue.of(lambda)).isEqualTo("ShownValueTest lambda");
        assertThat(ShownValue.of("ada@cafe")).isEqualTo("ada@cafe");
        assertThat(ShownValue.of(null)).isEqualTo("null");
    }
}
