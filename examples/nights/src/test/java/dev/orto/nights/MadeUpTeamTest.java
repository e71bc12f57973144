package dev.orto.nights;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.vocabulary.Outcome;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

class MadeUpTeamTest {

    private static final SuiteShape SHAPE = SuiteShape.usual(600).withRetries(1);

    @Test
    void the_same_seed_has_the_same_nights_and_another_one_others() {
        assertThat(nights(7)).isEqualTo(nights(7)).isNotEqualTo(nights(8)).allMatch(RunDigest::isMadeUp);
    }

    @Test
    void what_runs_say_is_what_is_true_of_their_tests() {
        var team = new MadeUpTeam("team7", SHAPE, 7);
        int broken = 0;
        int flickered = 0;
        int outages = 0;
        int longer = 0;
        Set<String> names = new HashSet<>();
        Set<String> branches = new HashSet<>();
        for (int night = 0; night < 200; night++) {
            for (RunDigest run : team.next()) {
                branches.add(run.branch());
                assertThat(run.tests()).extracting(TestDigest::key).doesNotHaveDuplicates();
                if (!run.branch().equals("main")) continue;
                if (team.wasOutage()) {
                    outages++;
                    assertThat(run.needingAttention()).isGreaterThan(60);
                    continue;
                }
                for (TestDigest test : run.tests()) {
                    names.add(test.key());
                    MadeUpTest truth = team.test(test.key());
                    boolean failed = test.outcome().equals(Outcome.FAILED);
                    if (truth.isBroken(night)) {
                        broken++;
                        assertThat(failed).as(test.key()).isTrue();
                    } else if (failed || test.recovered()) {
                        flickered++;
                        assertThat(truth.rate(night)).as(test.key()).isPositive();
                    }
                    if (truth.factor(night) > 1.3) longer++;
                }
            }
        }
        assertThat(broken).isPositive();
        assertThat(flickered).isPositive();
        assertThat(outages).isPositive();
        assertThat(longer).isPositive();
        assertThat(names)
                .as("some were renamed")
                .hasSizeGreaterThan(team.tests().size());
        assertThat(branches).hasSizeGreaterThan(20);
    }

    private static List<RunDigest> nights(long seed) {
        var team = new MadeUpTeam("team7", SHAPE, seed);
        List<RunDigest> all = new ArrayList<>();
        for (int i = 0; i < 20; i++) all.addAll(team.next());
        return all;
    }
}
