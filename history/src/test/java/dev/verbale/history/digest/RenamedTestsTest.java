package dev.verbale.history.digest;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.history.History;
import dev.verbale.history.Nights;
import dev.verbale.history.compare.Comparison;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** A test that was renamed goes on; one that went while another came does not. */
class RenamedTestsTest {

    @Test
    void a_method_with_most_of_its_words_is_the_same_test() {
        var renamed = new RenamedTests(
                List.of("dev.RotaTest.swaps_two_days()", "dev.RotaTest.leavesOthersAlone()", "dev.RotaTest.stays()"),
                List.of("dev.RotaTest.swapsDays()", "dev.RotaTest.leavesTheOthersAlone()", "dev.RotaTest.stays()"));

        assertThat(renamed.earlier("dev.RotaTest.swaps_two_days()")).isEqualTo("dev.RotaTest.swapsDays()");
        assertThat(renamed.earlier("dev.RotaTest.leavesOthersAlone()"))
                .isEqualTo("dev.RotaTest.leavesTheOthersAlone()");
        assertThat(renamed.earlier("dev.RotaTest.stays()")).isNull();
        assertThat(new RenamedTests(List.of("dev.T10.waters_the_beans"), List.of("dev.T10.waters_beans"))
                        .earlier("dev.T10.waters_the_beans"))
                .as("of XML")
                .isEqualTo("dev.T10.waters_beans");
    }

    @Test
    void what_is_as_like_to_two_or_to_none_is_a_new_test() {
        var renamed = new RenamedTests(
                List.of("dev.BedTest.grows_beans()", "dev.BedTest.opens()", "dev.GateTest.locks_bed()", "row [7]"),
                List.of(
                        "dev.BedTest.grows_kale()",
                        "dev.BedTest.grows_peas()",
                        "dev.BedTest.waters()",
                        "dev.BedTest.locks_bed()",
                        "row [6]"));

        for (String key : List.of(
                "dev.BedTest.grows_beans()", "dev.BedTest.opens()", "dev.GateTest.locks_bed()", "row [7]", "no such"))
            assertThat(renamed.earlier(key)).as(key).isNull();
    }

    @Test
    void a_class_that_went_while_another_came_with_its_methods_is_the_same() {
        var renamed = new RenamedTests(
                List.of("[shop] dev.till.TillTest.pays()", "[shop] dev.till.TillTest.opens()", "dev.A.pays()"),
                List.of("[shop] dev.CashTest.pays()", "[shop] dev.CashTest.opens()", "dev.A.pays()", "dev.B.opens()"));

        assertThat(renamed.earlier("[shop] dev.till.TillTest.pays()")).isEqualTo("[shop] dev.CashTest.pays()");
        assertThat(renamed.earlier("[shop] dev.till.TillTest.opens()")).isEqualTo("[shop] dev.CashTest.opens()");
    }

    @Test
    void a_renamed_test_carries_its_past_on_and_is_no_new_failure() {
        Nights nights = new Nights()
                .test("dev.RotaTest.swaps()", "......")
                .test("dev.RotaTest.growsBeansInMay()", "..FF  ")
                .test("dev.RotaTest.grows_beans_in_june()", "    FF");
        List<RunDigest> digests = new ArrayList<>(nights.digests());

        History history = nights.history();
        Comparison comparison = Comparison.of(digests.get(3), digests.get(4), history);

        assertThat(history.test("dev.RotaTest.grows_beans_in_june()")
                        .orElseThrow()
                        .row())
                .isEqualTo("..FFFF");
        assertThat(history.tests()).hasSize(2);
        assertThat(comparison.newFailures()).isEmpty();
        assertThat(comparison.vanished()).isEmpty();
        assertThat(comparison.stillFailing())
                .singleElement()
                .satisfies(change -> assertThat(change.before().key()).isEqualTo("dev.RotaTest.growsBeansInMay()"));
        assertThat(comparison.renamed()).hasSize(1);
        assertThat(comparison.sentence()).isEqualTo("1 still failing, 1 renamed.");
    }
}
