package dev.verbale.history.compare;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.history.History;
import dev.verbale.history.Nights;
import dev.verbale.history.compare.Comparison.Change;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.ReasonDigest;
import dev.verbale.history.digest.RunDigest.TestDigest;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Two runs beside each other. */
class ComparisonTest {

    @Test
    void each_test_is_told_by_what_became_of_it() {
        List<RunDigest> two = new Nights()
                .test("new failure", ".F")
                .test("flickers", ".~")
                .test("still failing", "FF")
                .test("fixed", "F.")
                .test("failed and skipped now", "Fs")
                .test("added", " .")
                .test("added and failing", " F")
                .test("vanished", ". ")
                .test("as ever", "..")
                .because("new failure", "swap")
                .because("still failing", "shed")
                .because("fixed", "lamp")
                .digests();

        Comparison comparison = Comparison.of(two.get(0), two.get(1), null);

        assertThat(keys(comparison.newFailures())).containsExactly("new failure", "added and failing");
        assertThat(keys(comparison.stillFailing())).containsExactly("still failing");
        assertThat(keys(comparison.fixed())).containsExactly("fixed");
        assertThat(comparison.added()).extracting(TestDigest::key).containsExactly("added");
        assertThat(comparison.vanished()).extracting(TestDigest::key).containsExactly("vanished");
        assertThat(comparison.newReasons()).extracting(ReasonDigest::id).containsExactly("swap");
        assertThat(comparison.goneReasons()).extracting(ReasonDigest::id).containsExactly("lamp");
        assertThat(comparison.titleOf("lamp")).isEqualTo("because of lamp");
        assertThat(comparison.isNoWorse()).isFalse();
        assertThat(comparison.sentence())
                .isEqualTo("2 new failures, 1 fixed, 1 still failing, 1 new test, 1 test vanished.");
        assertThat(Comparison.of(two.get(1), two.get(1), null).newFailures()).isEmpty();
        assertThat(Comparison.of(two.get(0), two.get(0), null).sentence()).isEqualTo("3 still failing.");
    }

    @Test
    void a_test_that_failed_for_a_night_before_is_told_from_a_broken_one_by_failing_again() {
        var nights = new Nights()
                .test("fails now and then", ".".repeat(20) + "F" + ".".repeat(18) + "F" + ".".repeat(19) + "F")
                .test("failed once", ".".repeat(30) + "F" + ".".repeat(28) + "F")
                .test("never failed", ".".repeat(59) + "F")
                .test("was broken for a week", ".".repeat(20) + "FFFFFFF" + ".".repeat(32) + "F");
        for (int i = 0; i < 200; i++) nights.test("steady " + i, ".".repeat(60));
        for (int i = 0; i < 10; i++)
            nights.test("mended by the next night " + i, ".".repeat(5 * i + 3) + "F" + ".".repeat(56 - 5 * i));
        List<RunDigest> all = nights.digests();
        History past = History.of(all.subList(0, 59));

        Comparison comparison = Comparison.of(all.get(58), all.get(59), past);

        assertThat(past.flakiness("fails now and then").isFlaky()).isFalse();
        assertThat(keys(comparison.newOfFlaky())).containsExactly("fails now and then");
        assertThat(keys(comparison.newOfSteady()))
                .containsExactly("failed once", "never failed", "was broken for a week");
    }

    @Test
    void a_test_that_fails_for_another_reason_is_told_so() {
        List<RunDigest> one = new Nights().test("a", "F").because("a", "swap").digests();
        List<RunDigest> other = new Nights().test("a", "F").because("a", "shed").digests();

        Comparison comparison = Comparison.of(one.get(0), other.get(0), null);

        assertThat(comparison.stillFailing())
                .singleElement()
                .satisfies(change -> assertThat(change.hasOtherReason()).isTrue());
    }

    @Test
    void names_that_differ_in_a_number_only_are_told() {
        List<RunDigest> two = new Nights()
                .test("sample.T.grows[order 4711]", ". ")
                .test("sample.T.grows[order 4712]", " .")
                .test("sample.T.rests[2026-11-30T10:31:07]", ". ")
                .test("sample.T.rests[2026-12-01T00:00:12]", " F")
                .test("sample.T.waters[Kale]", ". ")
                .test("sample.T.waters[Basil]", " .")
                .digests();

        Comparison comparison = Comparison.of(two.get(0), two.get(1), null);

        assertThat(comparison.renumbered())
                .extracting(TestDigest::key)
                .containsExactly("sample.T.grows[order 4712]", "sample.T.rests[2026-12-01T00:00:12]");
    }

    @Test
    void slower_is_what_is_beyond_the_noise_of_the_nights_before() {
        var nights = new Nights()
                .takes("steady", 1_000, 1_010, 990, 1_005, 1_000, 1_000, 1_400)
                .takes("noisy", 1_000, 1_900, 700, 1_500, 800, 1_200, 1_600)
                .takes("faster", 2_000, 2_010, 1_990, 2_005, 2_000, 2_000, 900)
                .takes("short", 10, 11, 10, 11, 10, 11, 90);
        List<RunDigest> digests = nights.digests();

        Comparison known = Comparison.of(digests.get(5), digests.get(6), History.of(digests));
        Comparison unknown = Comparison.of(digests.get(5), digests.get(6), null);

        assertThat(keys(known.slower())).containsExactly("steady");
        assertThat(known.slower().get(0).moreMillis()).isEqualTo(400);
        assertThat(keys(known.faster())).containsExactly("faster");
        assertThat(keys(unknown.slower())).isEmpty();
        assertThat(keys(unknown.faster())).containsExactly("faster");
    }

    private static List<String> keys(List<Change> changes) {
        return changes.stream().map(change -> change.after().key()).toList();
    }
}
