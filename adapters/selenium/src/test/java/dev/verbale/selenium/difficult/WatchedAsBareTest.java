package dev.verbale.selenium.difficult;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.browser.difficult.Site;
import dev.verbale.browser.difficult.Transcript;
import dev.verbale.hostile.ByDay;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** A watched driver gives a test what the bare one gives, whatever the site does, also where the test fails in the middle. */
class WatchedAsBareTest {

    private static final int MAX_WAYS = 4;

    private static Site site;
    private static Side bare;
    private static Side watched;

    @BeforeAll
    static void open() throws IOException {
        site = new Site();
        bare = new Side(false);
        watched = new Side(true);
    }

    @AfterAll
    static void close() {
        bare.close();
        watched.close();
        site.close();
    }

    static Stream<Difficulty> difficulties() {
        return ByDay.everyFourth(Difficulties.all());
    }

    @ParameterizedTest
    @MethodSource("difficulties")
    void a_test_sees_what_it_sees_of_the_bare_driver(Difficulty difficulty) throws Exception {
        Callable<Transcript> once = bare.meets(difficulty, site);
        List<String> seen = watched.meets(difficulty, site).call().lines();
        List<List<String>> expected = new ArrayList<>();
        expected.add(once.call().lines());
        // A bare one may do now this and now that, as answers come in time or late.
        while (!expected.contains(seen) && expected.size() < MAX_WAYS)
            expected.add(bare.meets(difficulty, site).call().lines());

        if (!expected.contains(seen)) assertThat(seen).isEqualTo(expected.get(0));
    }
}
