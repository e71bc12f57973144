package dev.verbale.history.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class JsonDifferenceTest {

    private static List<String> sentences(String before, String after) {
        return JsonDifference.of(before, after).orElseThrow().stream()
                .map(JsonDifference::sentence)
                .toList();
    }

    @Test
    void values_are_named_by_their_paths() {
        assertThat(
                        sentences(
                                "{\"plots\":[{\"owner\":\"Ada\",\"free\":true},{\"owner\":null}],\"odd name\":1,\"a.b\":{}}",
                                "{\"plots\":[{\"owner\":\"Bea\",\"free\":true}],\"odd name\":2,\"a.b\":{\"c\":[]},\"new\":\"\"}"))
                .containsExactly(
                        "$.plots[0].owner: \"Ada\", now \"Bea\"",
                        "$.plots[1].owner: null, which is not there now",
                        "$['odd name']: 1, now 2",
                        "$['a.b']: {}, which is not there now",
                        "$['a.b'].c: [], which was not there before",
                        "$.new: \"\", which was not there before");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "1 | 1.0",
                "12345678901234567890 | 12345678901234567891",
                "0.1 | 0.10",
                "1e2 | 100",
                "\"1\" | 1",
                "[] | {}",
                "null | \"null\"",
                "[1,2] | [2,1]"
            })
    void what_looks_alike_is_not_the_same(String before, String after) {
        assertThat(sentences(before, after)).isNotEmpty();
        assertThat(sentences(before, before)).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(strings = {"", " ", "<p>", "{", "[1,", "{\"a\":1} {}", "nul", "\"open"})
    void what_is_no_json_has_no_paths(String text) {
        assertThat(JsonDifference.of(text, "{}")).isEmpty();
        assertThat(JsonDifference.of("{}", text)).isEmpty();
        assertThat(JsonDifference.of(null, "{}")).isEmpty();
    }

    @Test
    void a_document_as_deep_and_as_long_as_somebody_likes_does_no_harm() {
        assertThat(JsonDifference.of("[".repeat(100_000), "[]")).isEmpty();
        String long1 = "[" + "1,".repeat(200_000) + "1]";
        assertThat(JsonDifference.of(long1, long1)).isEmpty();
        var random = new Random(7);
        for (int i = 0; i < 2_000; i++) {
            var text = new StringBuilder("{\"a\":[1,{\"b\":\"c\"},null],\"d\":{\"e\":-1.5e3}}");
            for (int hits = random.nextInt(4); hits >= 0; hits--)
                text.setCharAt(random.nextInt(text.length()), "{}[]\",:0a\\u".charAt(random.nextInt(11)));
            JsonDifference.of(text.toString(), "{}")
                    .ifPresent(all -> assertThat(all).isNotNull());
        }
    }
}
